import { expect, test } from "vitest";
import type { Fitting } from "../api/client";
import { formatter } from "../shared/format";
import { fittedWords, underWarranty } from "./fittings";

const format = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "UTC",
});
const fitting = (rest: Partial<Fitting>): Fitting => ({
  id: "1",
  work: "coil",
  cylinder: 3,
  km: 98_000,
  on: "2026-03-12",
  ours: true,
  by: "",
  warranty: { holds: true, until: "2027-03-12", until_km: 118_000 },
  ...rest,
});

test("says what was fitted, when, by whom, and until when it is ours to answer for", () => {
  expect(fittedWords(fitting({}), format)).toBe(
    "Coil 3: Mar 12, 2026 at 98,000 km, by us, under warranty until Mar 12, 2027 or 118,000 km",
  );
  const theirs = fitting({ ours: false, by: "a shop in town", km: null, warranty: null });
  expect(fittedWords(theirs, format)).toBe("Coil 3: Mar 12, 2026, by a shop in town");
});

test("names what is under warranty at a cylinder, once", () => {
  const over = fitting({ work: "plug", warranty: { holds: false, until: "2026-01-01", until_km: null } });
  expect(underWarranty([fitting({}), fitting({ id: "2" }), over], 3)).toBe("coil: our warranty");
  expect(underWarranty([fitting({})], 4)).toBe("");
});
