import { describe, expect, it } from "vitest";
import {
  comebackWords,
  costWords,
  dearest,
  heldWords,
  holdsWords,
  monthWords,
  moreWords,
  offWords,
  overWords,
  protocolName,
  protocolWords,
  stepCostWords,
  stepWords,
} from "./words";

const say = { figure: (n: number) => n.toFixed(1), money: String };
const row = {
  name: "E2",
  jobs: 40,
  too_few: false,
  hours_lost: 12,
  hours_lost_low: 7,
  hours_lost_high: 17,
  over: 0.24,
  beyond_cents: 174_000,
  held: 0.55,
};

describe("what the ledger says", () => {
  it("says how far over or under, and as estimated where it is neither", () => {
    expect([overWords(0.24), overWords(-0.1), overWords(0.001), overWords(null)]).toEqual([
      "24 % over",
      "10 % under",
      "as estimated",
      "not known",
    ]);
  });

  it("says how surely an engine costs, and when jobs are too few to say", () => {
    expect(costWords(row, say)).toBe(
      "24 % over: 40 jobs, 7.0 to 17.0 h beyond the quote; 55 of 100 within the promise",
    );
    expect(costWords({ ...row, jobs: 2, too_few: true }, say)).toBe("2 jobs: too few to say, about ten more will do");
  });

  it("puts the dearest first and those that tell nothing last", () => {
    const rows = [
      { ...row, name: "few", too_few: true, hours_lost: 90 },
      { ...row, name: "cheap", hours_lost: -3 },
      row,
    ];
    expect(dearest(rows).map((one) => one.name)).toEqual(["E2", "cheap", "few"]);
  });

  it("says whether a promise holds as far as so many jobs can tell", () => {
    expect(holdsWords(80, { share: 0.76, low: 0.68, high: 0.83 }, "120 jobs")).toBe(
      "80 of 100 should be within; 76 of 100 were (68 to 83), by 120 jobs",
    );
  });

  it("says what a step and a month cost", () => {
    const step = {
      engine: "E2",
      task: "step:manifold:remove",
      label: "Upper manifold",
      part: "remove",
      jobs: 19,
      over: 0.5,
      minutes_lost: 130,
      minutes_lost_low: 90,
      minutes_lost_high: 170,
    };
    expect(stepWords(step)).toBe("Upper manifold off, E2");
    expect(stepCostWords(step, say)).toBe("50 % over what was reckoned: 19 jobs, 1.5 to 2.8 h in all");
    expect(stepCostWords({ ...step, over: 0, jobs: 1, minutes_lost_low: null }, say)).toBe("as reckoned: 1 job");
    expect(monthWords({ ...row, name: "2026-03" }, say)).toBe(
      "40 jobs, 12.0 h beyond the quote; 55 of 100 within the promise",
    );
  });

  it("compares soaks by what came of them, and says where plugs are too few", () => {
    const soak = {
      construction: "multi-piece",
      soak: "short",
      plugs: 240,
      broken: 12,
      expected: 9.4,
      too_few: false,
      share: 0.05,
      low: 0.029,
      high: 0.085,
    };
    expect(protocolName(soak)).toBe("short soak, multi-piece plugs");
    expect(protocolWords(soak)).toBe("5 of 100 (2.9 to 8.5); 9 were expected to");
    expect(protocolWords({ ...soak, too_few: true })).toBe("too few plugs to say");
  });

  it("says what the lesson would have done before it is taken", () => {
    const share = (value: number) => ({ share: value, low: value, high: value });
    const lately = {
      days: 182,
      jobs: 78,
      quoted_hours: 110,
      would_hours: 121.5,
      worked_hours: 118,
      more_cents: 166_750,
      held: share(0.66),
      would_held: share(0.79),
      off_hours: 0.42,
      would_off_hours: 0.31,
    };
    expect(heldWords(lately)).toBe(
      "The promise for 80 of 100 held for 66 in the last 6 months; with the lesson it would have held for 79.",
    );
    expect(offWords(lately, { figure: (n) => n.toFixed(2) })).toBe(
      "Estimates were 0.42 h off, and would have been 0.31.",
    );
    expect(moreWords(lately, say)).toBe("The labor quoted would have come to 166750 more.");
    expect(moreWords({ ...lately, more_cents: -5 }, say)).toBe("The labor quoted would have come to 5 less.");
  });

  it("names what came back", () => {
    expect(comebackWords([], 312)).toBe("None of 312 jobs.");
    expect(comebackWords([{ work: "coil", engine: "JIV6", count: 2 }], 312)).toBe("2 of 312: 2 × coil on JIV6.");
  });
});
