import { expect, it } from "vitest";
import { formatter } from "../shared/format";
import { learnedWords, oddsWords, openingWords, reasonWords } from "./words";

const shop = {
  distance_unit: "km" as const,
  currency: "EUR",
  currency_exponent: 2,
  time_zone: "UTC",
};
const english = formatter({ ...shop, locale: "en-US" });
const german = formatter({ ...shop, locale: "de-DE" });

it("says what multiplies a task's minutes, in the shop's figures, and whose figure it is", () => {
  const rust = { kind: "rust", level: "light", factor: 1.15, source: "house" };
  expect(reasonWords(rust, english)).toBe("× 1.15 light rust (house setting)");
  expect(reasonWords(rust, german)).toBe("× 1,15 light rust (house setting)");
  expect(reasonWords({ ...rust, level: "none", factor: 1.05 }, english)).toBe("× 1.05 no rust (house setting)");
  expect(reasonWords({ kind: "reach", level: "from-beneath", factor: 1.4, source: "engine" }, english)).toBe(
    "× 1.4 reach from beneath (engine profile)",
  );
});

it("says what moves the odds of a plug", () => {
  expect(oddsWords({ kind: "distance", level: null, amount: 1.6, times: 1.3257 }, german)).toBe(
    "odds × 1,33 for 1,60 intervals since the last change",
  );
  expect(oddsWords({ kind: "years", level: null, amount: 1, times: 1.06 }, english)).toBe(
    "odds × 1.06 for 1 year since the last change",
  );
  expect(oddsWords({ kind: "wear", level: "none", amount: null, times: 0.9 }, english)).toContain("for no rust and");
  expect(oddsWords({ kind: "soak", level: "none", amount: null, times: 1.2 }, english)).toContain("for no soak");
});

it("says where more work lies, next to the work chosen", () => {
  const words = (bank: string | null, same: boolean, open: boolean) => openingWords({ opening: { bank, same, open } });
  expect(words(null, true, true)).toBe("same opening");
  expect(words(null, true, false)).toBe("more to open");
  expect(words("rear", true, true)).toBe("same bank");
  expect(words("rear", false, false)).toBe("rear bank, more to open");
  expect(openingWords({ opening: null })).toBe("extra");
});

it("says where learned hours come from, both figures beside each other", () => {
  const learned = { jobs: 14, over_low: 0.06, over_high: 0.22, hours: 3.4, estimated_hours: 2.9 };
  expect(learnedWords(learned, english)).toBe("Learned from 14 jobs, 6 to 22 % above the estimate: 3.4 h, not 2.9 h.");
  expect(learnedWords({ ...learned, jobs: 1, over_low: -0.04, hours: 2.9 }, german)).toBe(
    "Learned from 1 job, 4 % below to 22 % above the estimate: 2,9 h either way.",
  );
  expect(learnedWords({ ...learned, jobs: 0, over_low: -0.2, over_high: -0.1 }, english)).toContain(
    "Learned from other engines, 10 to 20 % below the estimate",
  );
});
