import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { EngineProfile } from "../api/client";
import { about, at, figureAt, originOf, type Path, proper, setAt, typed } from "./edits";

const FOLDER = "../demo/engines";
const profiles = readdirSync(FOLDER).map(
  (name) => JSON.parse(readFileSync(`${FOLDER}/${name}`, "utf8")) as EngineProfile,
);

/** Every place in a value that holds no other. */
function leaves(value: unknown, path: Path = []): Path[] {
  if (typeof value !== "object" || value === null) return [path];
  return Object.entries(value).flatMap(([key, inner]) =>
    leaves(inner, [...path, Array.isArray(value) ? Number(key) : key]),
  );
}

describe("edits of a profile", () => {
  it("change what they touch and nothing else, over every place of every shipped engine", () => {
    for (const profile of profiles) {
      const places = leaves(profile);
      for (const path of places) {
        const was = at(profile, path);
        const there = setAt(profile, path, "changed");
        expect(at(there, path)).toBe("changed");
        const back = setAt(there, path, was);
        if (JSON.stringify(back) !== JSON.stringify(profile)) expect(back).toEqual(profile);
      }
      const one = places[Math.floor(places.length / 2)] ?? [];
      const there = setAt(profile, one, "changed");
      const touched = places.filter((path) => at(there, path) !== at(profile, path));
      expect(touched).toEqual([one]);
    }
  });

  it("take out a key, and a row of a list", () => {
    expect(setAt({ a: 1, b: 2 }, ["a"], undefined)).toEqual({ b: 2 });
    expect(setAt({ rows: [1, 2, 3] }, ["rows", 1], undefined)).toEqual({ rows: [1, 3] });
    expect(setAt({}, ["seals", 0, "part"], "SEA-1")).toEqual({ seals: [{ part: "SEA-1" }] });
  });

  it("make a sketch an engine like any other, and leave what else the engine overrides", () => {
    const sketch = { provisional: true, house_overrides: { common_variation: 0.25, quantile: 0.7 } };
    expect(proper(sketch as unknown as EngineProfile)).toEqual({ house_overrides: { quantile: 0.7 } });
    const plain = { provisional: true, house_overrides: { common_variation: 0.25 } };
    expect(proper(plain as unknown as EngineProfile)).toEqual({});
  });

  it("make a figure that was typed over a typed one, and leave the others' origins", () => {
    const origins = { "steps:cover:remove": { from: "kind" }, "steps:cover:refit": { from: "pattern" } };
    const profile = {
      steps: [{ id: "cover", remove: [1, 2, 3], refit: [1, 2, 3] }],
      targets: [],
      origins,
    } as unknown as EngineProfile;
    const path = ["steps", 0, "remove", 1];
    expect(originOf(profile, path)).toEqual({ from: "kind" });
    const next = typed(profile, path, 9);
    expect(next.steps[0]?.remove).toEqual([1, 9, 3]);
    expect(originOf(next, path)).toEqual({ from: "typed" });
    expect(originOf(next, ["steps", 0, "refit"])).toEqual({ from: "pattern" });
    expect(typed(next, ["steps", 0, "refit", 0], 0)).not.toHaveProperty("origins");
    expect(figureAt(["steps", 0, "label"])).toBeNull();
  });
});

describe("a likely time typed while the server cannot be asked", () => {
  it("takes low and high along in proportion, and invents none", () => {
    expect(about([2, 4, 8], 8)).toEqual([4, 8, 16]);
    expect(about([3, 5, 8.5], 2)).toEqual([1.2, 2, 3.4]);
    expect(about(undefined, 6)).toEqual([6, 6, 6]);
    expect(about([0, 0, 0], 6)).toEqual([6, 6, 6]);
  });
});
