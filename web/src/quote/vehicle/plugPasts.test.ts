import { describe, expect, it } from "vitest";
import type { Content, Resolved } from "../../api/client";
import { asEntered, knownOf, tagOf, withPast } from "./plugPasts";

const content = {
  scopes: [],
  active: 0,
  history: { cylinders: { "3": { plugs_changed_km: 5 } } },
} as unknown as Content;

describe("what was done to which cylinder", () => {
  it("changes one cylinder's entry, key by key, and takes the car's word again", () => {
    expect(withPast(content, 3, { plugs_changed_years: 2 }).history?.cylinders).toEqual({
      "3": { plugs_changed_km: 5, plugs_changed_years: 2 },
    });
    expect(withPast(content, 1, { plugs_changed_years: 2 }).history?.cylinders).toEqual({
      "3": { plugs_changed_km: 5 },
      "1": { plugs_changed_years: 2 },
    });
    expect(withPast(content, 3, null).history?.cylinders).toEqual({ "3": {} });
  });

  it("says in a tag what is its own, and lets its entry win over the car's", () => {
    expect([
      tagOf(undefined),
      tagOf({ plugs_changed_km: 1 }),
      tagOf({ plugs_changed_years: 2, fitted: { construction: "multi-piece", interval_km: 1 } }),
    ]).toEqual(["", "own past", "2 y, other plug"]);
    const history = {
      plugs_changed_km: 10,
      plugs_changed_years: 9,
      cylinders: { "3": { plugs_changed_years: 1 } },
    } as unknown as Resolved["history"];
    expect(knownOf(history, 3)).toMatchObject({ plugs_changed_km: 10, plugs_changed_years: 1 });
    expect(knownOf(history, 1)).toMatchObject({ plugs_changed_years: 9 });
  });

  it("shows what was entered, refused or not, over what the figures were made from", () => {
    const history = {
      plugs_changed_km: 10,
      plugs_changed_years: 9,
      cylinders: { "3": { plugs_changed_years: 1 }, "5": { plugs_changed_years: 2 } },
    } as unknown as Resolved["history"];
    const entered = { ...content, history: { cylinders: { "3": { plugs_changed_km: 990_000 }, "5": {} } } } as Content;
    expect(asEntered(history, entered).cylinders).toEqual({
      "3": { plugs_changed_years: 1, plugs_changed_km: 990_000 },
    });
    expect(asEntered(history, { ...content, history: undefined } as Content).cylinders).toEqual(history.cylinders);
  });
});
