import { expect, test } from "vitest";
import { amount, cents, numeral } from "./numerals";

test("reads amounts to the cent, in the way either locale writes them", () => {
  expect(["15", "15.00", "15,50", "1,234.50", "1 234"].map((text) => cents(text, 2))).toEqual([
    1500, 1500, 1550, 123450, 123400,
  ]);
  expect(["15.005", "-5", "1.2.3", ""].map((text) => cents(text, 2))).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  expect(cents("1200", 0)).toBe(1200);
});

test("writes amounts so that they read back the same", () => {
  expect([amount(123_450, 2), amount(1200, 0), amount(5, 2)]).toEqual(["1234.50", "1200", "0.05"]);
  for (const value of [0, 5, 999, 123_450, 99_999_999]) expect(cents(amount(value, 2), 2)).toBe(value);
});

test("takes a comma for what it stands for: thousands before three digits, decimals otherwise", () => {
  expect(["181,400", "181 400", "9,5", "9.5", "0,125", "1234"].map((text) => numeral(text)?.number)).toEqual([
    181400, 181400, 9.5, 9.5, 0.125, 1234,
  ]);
  expect(["", "12 km", "-3", "1e5", "1,2,3", "."].map(numeral)).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
});
