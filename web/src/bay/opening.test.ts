import { expect, test } from "vitest";
import { nextOpening } from "./opening";

const hours = { mon: ["07:30", "17:00"], fri: ["08:00", "17:00"], sat: null, sun: null };

test("a soak begun on a day stands until the shop opens next, past days it is closed", () => {
  const friday = new Date(2026, 11, 4, 16, 40);
  expect(nextOpening(hours, friday)).toBe("2026-12-07T07:30");
  expect(nextOpening(hours, new Date(2026, 11, 3, 9))).toBe("2026-12-04T08:00");
});

test("a shop that never opens says so", () => {
  expect(nextOpening({ mon: null }, new Date())).toBeNull();
});
