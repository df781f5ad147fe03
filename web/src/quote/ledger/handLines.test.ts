import { describe, expect, it } from "vitest";
import { asKind, blank, handLine } from "./handLines";

describe("a line by hand", () => {
  it("is kept as it was entered, without blanks around its words", () => {
    expect(handLine({ label: " Wheel bearing ", class: "labor", quantity: 1.5, each: 14500 })).toEqual({
      line: { label: "Wheel bearing", class: "labor", quantity: 1.5, each_cents: 14500 },
      problems: {},
    });
  });

  it("may be free, and is never without words, a number or a price", () => {
    expect(handLine({ label: "Cap", class: "parts", quantity: 1, each: 0 }).line?.each_cents).toBe(0);
    expect(Object.keys(handLine({ label: "", class: "parts", quantity: null, each: null }).problems)).toEqual([
      "label",
      "quantity",
      "each",
    ]);
    expect(handLine({ label: "Cap", class: "parts", quantity: 1000, each: 1 }).problems.quantity).toBe("At most 999.");
  });

  it("starts with an hour at the shop's rate, which a part does not take over", () => {
    const work = blank(14500);
    expect(work).toMatchObject({ class: "labor", quantity: 1, each: 14500 });
    const part = asKind(work, "parts", 14500);
    expect(part.each).toBeNull();
    expect(asKind({ ...part, each: 900 }, "fees", 14500).each).toBe(900);
    expect(asKind(part, "labor", 14500).each).toBe(14500);
  });
});
