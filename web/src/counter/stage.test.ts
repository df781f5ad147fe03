import { describe, expect, it } from "vitest";
import type { QuoteCard } from "../api/client";
import { formatter } from "../shared/format";
import { mayBePutAway, nextAct, stageWords } from "./stage";

const format = formatter({
  locale: "en-US",
  distance_unit: "mi",
  time_zone: "UTC",
  currency: "USD",
  currency_exponent: 2,
});
const quote = (stage: QuoteCard["stage"], more: Partial<QuoteCard> = {}) =>
  ({ id: "q", job_id: "j", stage, stage_at: "2026-01-05T10:00:00Z", reason: null, ...more }) as QuoteCard;

describe("the stage of a quote", () => {
  it("is said with its last act and the reason somebody gave", () => {
    expect(stageWords(quote("declined", { reason: "we sell the car" }), format)).toBe(
      "declined Jan 5: we sell the car",
    );
  });

  it("leads to what is next: the yes until something is agreed, the card after", () => {
    expect(nextAct(quote("saved"))).toEqual({ word: "Offer", to: "/quotes/q/yes" });
    expect(nextAct(quote("in-bay"))).toEqual({ word: "Card", to: "/bay/j" });
    expect(nextAct(quote("handed-over"))).toBeNull();
  });

  it("is put away only where nobody waits and nothing binds", () => {
    expect((["draft", "seen", "agreed", "declined"] as const).map((stage) => mayBePutAway(quote(stage)))).toEqual([
      true,
      false,
      false,
      true,
    ]);
  });
});
