import { describe, expect, it } from "vitest";
import { newerWords } from "./newerWords";

describe("what a newer profile would change", () => {
  const format = { hours: (h: number) => h.toFixed(1), moneyWithSign: (c: number) => `$${c / 100}` };
  const row = { title: "Plug 5", hours_before: 2, hours_after: 2.4, cents_before: 30000, cents_after: 36000 };

  it("is told in hours and money, before and after", () => {
    expect(newerWords(row, format)).toBe("Plug 5: 2.0 → 2.4 h, $300 → $360");
    expect(newerWords({ ...row, hours_after: null, cents_after: null }, format)).toBe(
      "Plug 5: 2.0 → none h, $300 → none",
    );
  });

  it("may be nothing", () => {
    expect(newerWords({ ...row, hours_after: 2, cents_after: 30000 }, format)).toBe("Plug 5: nothing changes");
  });
});
