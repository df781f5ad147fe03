import { describe, expect, it } from "vitest";
import type { Content, Resolved } from "../../api/client";
import { asEntered, tagOf, withPast } from "./plugPasts";

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

  it("drops one figure of an entry; without any it is the car's again", () => {
    const both = withPast(content, 3, { plugs_changed_years: 2 });
    expect(withPast(both, 3, { plugs_changed_km: undefined }).history?.cylinders).toEqual({
      "3": { plugs_changed_years: 2 },
    });
    expect(withPast(content, 3, { plugs_changed_km: undefined }).history?.cylinders).toEqual({ "3": {} });
  });

  it("says in a tag what is its own", () => {
    expect([
      tagOf(undefined),
      tagOf({ plugs_changed_km: 1 }),
      tagOf({ plugs_changed_years: 2, fitted: { construction: "multi-piece", interval_km: 1 } }),
    ]).toEqual(["", "own past", "2 y, other plug"]);
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
