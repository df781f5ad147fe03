import { describe, expect, it } from "vitest";
import { factWords, lineWords, shownRows, whyWords } from "./words";

describe("words of a bill", () => {
  it("says why a line differs, with every cause", () => {
    expect(whyWords(["happened", "not_done"])).toBe("what happened, not done");
    expect(whyWords([])).toBe("");
  });

  it("says what came of the job and nothing of what did not happen", () => {
    const none = { not_done: [], tried: [], owed: [], broken: [], thread: [], mishaps: [] };
    expect(factWords({ ...none, broken: ["Plug 3", "Plug 5"], not_done: ["Coil 1"] })).toEqual([
      "Plug 3 and Plug 5 broke",
      "Coil 1 not done",
    ]);
  });

  it("says hours as hours and pieces as pieces", () => {
    expect(lineWords({ kind: "labor", label: "Labor", quantity: 4.6 }, String)).toBe("Labor, 4.6 h");
    expect(lineWords({ kind: "part", label: "Spark plug", quantity: 7 }, String)).toBe("Spark plug × 7");
    expect(lineWords({ kind: "fee", label: "Disposal" }, String)).toBe("Disposal");
  });

  it("stands what fell away among its like, before supplies and tax, and leaves out what costs nothing", () => {
    const row = (kind: string, label: string, cents: number | null, agreed_cents: number | null = cents) => ({
      kind,
      label,
      cents,
      agreed_cents,
    });
    const rows = [
      row("labor", "a", 1),
      row("part", "b", 1),
      row("consumable", "c", 0),
      row("supplies", "d", 1),
      row("tax", "e", 1),
      row("part", "f", null, 1),
    ];
    expect(shownRows(rows).map((one) => one.label)).toEqual(["a", "b", "f", "d", "e"]);
  });
});
