import { expect, test } from "vitest";
import type { Content } from "../../api/client";
import { formatter } from "../../shared/format";
import { activeScope, describe as say, inScope, lacking, toggled, WORKS } from "./works";

const format = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "Europe/London",
});
const content: Content = {
  active: 1,
  scopes: [
    { cylinders: [1], works: ["plug"] },
    { name: "Rear", cylinders: [5, 3], works: ["plug", "coil"], extras: ["throttle-clean"] },
  ],
};

test("no two kinds of work share a key, and none is a digit", () => {
  const keys = Object.values(WORKS)
    .map((work) => work.key)
    .filter(Boolean);
  expect(new Set(keys).size).toBe(keys.length);
  expect(keys.some((key) => /\d/.test(key))).toBe(false);
});

test("a scope says whether a cylinder or the work is missing", () => {
  expect(lacking({ cylinders: [], works: ["plug"] }).choose).toBe("Choose a cylinder, or other work");
  expect(lacking({ cylinders: [], works: [] }).told).toBe("Nothing chosen yet.");
  expect(lacking({ cylinders: [4], works: [] }).choose).toBe("Choose the work for cylinder 4");
  expect(lacking({ cylinders: [6, 2, 4], works: [] })).toEqual({
    told: "No work chosen yet.",
    choose: "Choose the work for cylinders 2, 4 and 6",
    how: "Press what is to be done under the drawing or type its letter.",
  });
});

test("a scope whose work is not on its cylinders says so", () => {
  expect(lacking({ cylinders: [6], works: ["tube-seal"] }).told).toBe("Tube seals: none at cylinder 6.");
  expect(lacking({ cylinders: [3, 1], works: ["wire", "boot"] })).toEqual({
    told: "Wire and boot: none at cylinders 1 and 3.",
    choose: "Choose other work, or another cylinder",
    how: "Press what is to be done under the drawing or type its letter.",
  });
});

test("a change touches the active scope only", () => {
  const next = inScope(content, (scope) => ({ ...scope, cylinders: toggled(scope.cylinders, 1) }));
  expect(next.scopes[0]).toEqual(content.scopes[0]);
  expect(activeScope(next).cylinders).toEqual([5, 3, 1]);
  expect(toggled([5, 3, 1], 3)).toEqual([5, 1]);
});

test("a version is described so that two can be told apart", () => {
  expect(say(content, format)).toEqual([
    "Scope: plug, cylinders 1",
    "Rear: plug and coil, cylinders 3, 5, throttle-clean",
  ]);
  const byHand: Content = {
    active: 0,
    scopes: [
      {
        cylinders: [5],
        works: ["coil"],
        hours: { by_hours: -0.6, reason: "known car", targets: ["coil-5"] },
        discount: { cents: 1500, label: "Goodwill" },
      },
    ],
  };
  expect(say(byHand, format)).toEqual(["Scope: coil, cylinders 5, −0.6 h by hand, Goodwill −15.00"]);
});
