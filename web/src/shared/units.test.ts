import { expect, test } from "vitest";
import { formatter } from "./format";
import { torque } from "./units";

const { figure: say } = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "UTC",
});

test("torques stand in both units", () => {
  expect(torque(25, say)).toBe("25 N·m (18 lb-ft)");
  expect(torque(9, say)).toBe("9 N·m (80 lb-in)");
});

test("a torque that was reckoned is no finer than a wrench is set", () => {
  expect(torque(17.499999999, say)).toBe("17.5 N·m (12.9 lb-ft)");
  expect(torque(63.0000004, say)).toBe("63 N·m (46 lb-ft)");
});
