import { describe, expect, it } from "vitest";
import type { Content } from "../api/client";
import { toScopes } from "./toScopes";

const content = {
  scopes: [{ name: "old", cylinders: [1], works: ["plug"], extras: [] }],
  active: 0,
  note: "kept",
} as unknown as Content;

describe("what a trace makes of a quote", () => {
  it("is the scopes it leads to, the rest of the quote as it was", () => {
    const leads_to = [
      { works: ["coil"], cylinders: [3] },
      { works: ["plug", "coil"], cylinders: [3] },
    ];
    const made = toScopes({ ...content, active: 2 }, { leads_to });
    expect(made?.scopes.map((scope) => [scope.works, scope.cylinders])).toEqual([
      [["coil"], [3]],
      [["plug", "coil"], [3]],
    ]);
    expect([made?.active, made?.note, made?.codes]).toEqual([0, "kept", true]);
  });

  it("is nothing where no part is pointed at", () => {
    expect(toScopes(content, { leads_to: [] })).toBeNull();
  });
});
