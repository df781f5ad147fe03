import { expect, test } from "vitest";
import { formatter, list } from "./format";

const merrow = {
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "Europe/London",
} as const;

test("money keeps its cents and its sign", () => {
  const format = formatter(merrow);
  expect(format.money(123456)).toBe("1,234.56");
  expect(format.moneyWithSign(59593)).toBe("$595.93");
  expect(format.signed(-250)).toBe("−2.50");
  expect(format.money(-2000)).toBe("−20.00");
});

test("a currency without decimals shows none", () => {
  expect(formatter({ ...merrow, currency: "JPY", currency_exponent: 0 }).money(1200)).toBe("1,200");
});

test("distances are stored in km, shown in miles, and come back the same", () => {
  const format = formatter({ ...merrow, distance_unit: "mi" });
  expect(format.distance(160934.4)).toBe("100,000 mi");
  expect(format.toKm(100000)).toBeCloseTo(160934.4, 6);
});

test("small minutes are not rounded to nothing", () => {
  expect(formatter(merrow).minutes(0.4)).toBe("<1");
  expect(formatter(merrow).minutes(12.5)).toBe("13");
});

test("lists read like a sentence", () => {
  expect([list([1]), list([1, 3]), list([1, 3, 5])]).toEqual(["1", "1 and 3", "1, 3 and 5"]);
});

test("says when a car is ready by its weekday within the week, and by its date where a weekday would mislead", () => {
  const now = new Date("2026-11-25T14:00:00Z"); // a Wednesday
  const say = (text: string) => formatter(merrow).wall(text, now).replaceAll(/\s/g, " ");
  expect([say("2026-11-25T15:37"), say("2026-12-01T08:00")]).toEqual(["Wed 3:37 PM", "Tue 8:00 AM"]);
  expect([say("2026-12-02T08:00"), say("2026-11-24T08:00")]).toEqual(["Dec 2, 2026, 8:00 AM", "Nov 24, 2026, 8:00 AM"]);
  expect(say("51000-01-01T08:00")).toBe("51000-01-01T08:00");
});
