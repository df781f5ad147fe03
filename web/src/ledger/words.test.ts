import { describe, expect, it } from "vitest";
import { costWords, dearest, holdsWords, overWords, taskWords } from "./words";

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
    expect(holdsWords(80, { share: 0.76, low: 0.68, high: 0.83 }, 120)).toBe(
      "80 of 100 should be within; 76 of 100 were (68 to 83), by 120 jobs",
    );
    expect(taskWords({ engine: "E2", label: "Upper manifold", part: "remove", over: 0.5 })).toBe(
      "Upper manifold off on E2: 50 % over",
    );
  });
});
