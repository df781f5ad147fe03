import { expect, test } from "vitest";
import { placeOf, readings } from "./leaves";

const leaves = [
  { value: null, unit: "mm" as const },
  { value: 0.041, unit: "in" as const },
  { value: 0, unit: "mm" as const },
  { value: 0.65, unit: "mm" as const },
];

test("asks about leaves that hold a figure, each in its own unit", () => {
  expect(readings(leaves)).toEqual([
    { value: 0.041, unit: "in" },
    { value: 0.65, unit: "mm" },
  ]);
});

test("finds the leaf a question is about past those left empty", () => {
  expect([placeOf(leaves, 0), placeOf(leaves, 1)]).toEqual([1, 3]);
});
