import { expect, test } from "vitest";
import { doubt, isOff } from "./gap";

const believed = { low: 0.2, high: 2.5 };
const wanted = { low: 0.65, high: 0.75 };

test("a gap no plug has is questioned, one in inches is named", () => {
  expect([null, 0.2, 0.7, 2.5].map((gap) => doubt(gap, believed))).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  expect(doubt(0.028, believed)).toBe("Inches? Give it in mm.");
  expect(doubt(28, believed)).toBe("No gap of a plug.");
  expect(doubt(0.001, believed)).toBe("No gap of a plug.");
});

test("a gap at either end of what is wanted is in range", () => {
  expect([0.65, 0.7, 0.75, 0.75 + 5e-10].map((gap) => isOff(gap, wanted))).toEqual([false, false, false, false]);
  expect([0.64, 0.76].map((gap) => isOff(gap, wanted))).toEqual([true, true]);
  expect(isOff(0.64, undefined)).toBe(false);
  expect(isOff(null, wanted)).toBe(false);
});
