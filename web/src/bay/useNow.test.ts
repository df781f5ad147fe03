import { expect, test } from "vitest";
import { minutesLeft } from "./useNow";

const begun = "2026-11-26T08:00:00.000Z";
const at = (seconds: number) => minutesLeft(60, begun, Date.parse(begun) + seconds * 1000);

test("a clock counts whole minutes down, and never says more than it has", () => {
  expect([at(-10), at(0), at(1), at(60), at(61), at(3_540), at(3_599)]).toEqual([60, 60, 60, 59, 59, 1, 1]);
});

test("a clock that has run out has nothing left", () => {
  expect([at(3_600), at(3_661), at(10_000)].every((left) => left <= 0)).toBe(true);
});
