import { expect, test } from "vitest";
import { depthInk } from "./depth";

test("each of six layers has its own ink, darker as it goes down", () => {
  expect([1, 2, 3, 4, 5, 6].map((depth) => depthInk(depth, 6))).toEqual(
    [1, 2, 3, 4, 5, 6].map((n) => `var(--depth-${n})`),
  );
});

test("deeper jobs are scaled to six and never go back up", () => {
  const inks = Array.from({ length: 14 }, (_, i) => Number(depthInk(i + 1, 14).match(/\d/)?.[0]));
  expect(inks[0]).toBe(1);
  expect(inks.at(-1)).toBe(6);
  expect([...inks].sort((a, b) => a - b)).toEqual(inks);
});
