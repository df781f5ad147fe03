import { describe, expect, it } from "vitest";
import { factWords, whyWords } from "./words";

describe("words of a bill", () => {
  it("says why a line differs, with every cause", () => {
    expect(whyWords(["happened", "not_done"])).toBe("what happened, not done");
    expect(whyWords([])).toBe("");
  });

  it("says what came of the job and nothing of what did not happen", () => {
    const none = { not_done: [], tried: [], owed: [], broken: [], thread: [], mishaps: [] };
    expect(factWords({ ...none, broken: ["Plug 3", "Plug 5"], not_done: ["Coil 1"] })).toEqual([
      "Plug 3 and Plug 5: broke",
      "Coil 1: not done",
    ]);
  });
});
