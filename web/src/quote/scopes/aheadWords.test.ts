import { expect, test } from "vitest";
import type { Ahead } from "../../api/client";
import { formatter } from "../../shared/format";
import { ahead } from "./aheadWords";

const format = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "UTC",
});
const row = (index: number, net_cents: number, no_comeback: number, returns: number) => ({
  index,
  net_cents,
  no_comeback,
  returns,
  return_cents: 20_000,
  scheduled: null,
  life_used_cents: 0,
  total_cents: net_cents,
  incomplete: false,
});
const found: Ahead = {
  yearly_km: 15_000,
  months: 24,
  shown: false,
  found: {},
  failed: [],
  rows: [row(0, 120_000, 0.61, 0.48), row(1, 100_000, 0.9, 0.1), row(2, 104_000, 0.97, 0.03)],
  recommended: 1,
  also: 2,
  cheapest_now: 0,
  break_even_returns: 0.25,
};
const names = ["Coil 3", "Coil 3 and plugs", "All"];

test("names what is recommended, the cheaper one beside it, and the better chance nearby", () => {
  const words = ahead(found, names, format);
  expect(words).toContain("Over 24 months Coil 3 and plugs comes to least, 1,000.00 all told; 90 of 100");
  expect(words).toContain("Coil 3 is cheapest now; 61 of 100 do not come back.");
  expect(words).toContain("breaks even at 0.25 returns, and 0.48 are expected");
  expect(words).toContain("For 40.00 more, All: 97 of 100.");
});

test("says nothing of itself where one is both, and what is missing where nothing is complete", () => {
  const one = ahead({ ...found, cheapest_now: 1, also: null, break_even_returns: null }, names, format);
  expect(one).not.toContain("cheapest now");
  expect(ahead({ ...found, recommended: null, cheapest_now: null }, names, format)).toContain("no price");
});
