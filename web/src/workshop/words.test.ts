import { describe, expect, it } from "vitest";
import { openWords, originWords, standsOn, triedWords, unlikeWords } from "./words";

describe("what the workshop says", () => {
  it("names what a price is of by its cylinders", () => {
    expect(triedWords({ what: "deepest-bank", cylinders: [1, 3, 5] })).toBe("Plugs 1, 3 and 5");
    expect(triedWords({ what: "all", cylinders: [1, 2] })).toBe("All plugs and coils");
  });

  it("says where figures come from, and leaves out what there is none of", () => {
    expect(standsOn({ typed: 9, kind: 0, pattern: 3, learned: 12 })).toEqual([
      "12 learned from jobs",
      "9 typed",
      "3 from the pattern",
    ]);
    expect(standsOn(null)).toEqual([]);
    expect(originWords({ from: "learned", jobs: 1 })).toBe("learned from 1 job");
  });

  it("asks for a part number where only its place is known, and for a price where it has one", () => {
    expect(openWords({ code: "no-price", of: "part: coil" })).toBe("No part number: coil");
    expect(openWords({ code: "no-price", of: "COI-1" })).toBe("COI-1 has no price");
  });

  it("questions a figure by what the others take", () => {
    const row = { path: "/steps/2/remove", low: 9, high: 24, count: 5, minutes: 90 };
    expect(unlikeWords(row, () => "Upper manifold", String)).toBe(
      "Upper manifold off in 90 min: the 5 others like it take 9 to 24.",
    );
  });
});
