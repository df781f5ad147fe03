import { expect, test } from "vitest";
import { formatter } from "../shared/format";
import { alike, notesOf, ownPlugs, plugTorque, type Profile, type Step } from "./profile";

const { figure: say } = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "UTC",
});

const step = (rest: Partial<Step>): Step => ({ id: "s", label: "Step", remove: [1, 2, 3], refit: [1, 2, 3], ...rest });

test("a plug's torque says what threads it is for", () => {
  expect(plugTorque({ torque_nm: 25, torque_assumes: "dry" }, say)).toBe("25 N·m (18 lb-ft), for dry threads");
  expect(plugTorque({ torque_nm: 25 }, say)).toBe("25 N·m (18 lb-ft), unstated, taken as for dry threads");
  expect(plugTorque({ torque_nm: 25, torque_range_nm: [23, 30], torque_assumes: "compound" }, say)).toBe(
    "23 N·m (17 lb-ft) to 30 N·m (22 lb-ft), for threads with compound",
  );
  expect(plugTorque({}, say)).toBeUndefined();
});

test("a plain step has nothing to say", () => {
  expect(notesOf(step({}), String, String, say)).toEqual([]);
});

test("says what a step comes with, in the order it matters", () => {
  const lines = notesOf(
    step({
      after: ["cover", { any: ["aside", "unplug"] }],
      needs: ["strap-and-block"],
      people: 2,
      rust_prone: true,
      fasteners: [{ what: "mount bolt", size: "17 mm hex", count: 3, torque_nm: 65, rule: "replace" }],
      seals: [{ part: "SEA-1", rule: "inspect", chance: 0.3 }],
      releases: [{ fluid: "coolant", liters: 0.2 }],
    }),
    (id) => id.toUpperCase(),
    (id) => id.replaceAll("-", " "),
    say,
  );
  expect(lines).toEqual([
    "After: COVER, one of ASIDE / UNPLUG",
    "Takes: strap and block",
    "rusts, 2 people",
    "3 × mount bolt, 17 mm hex, 65 N·m (48 lb-ft), always new",
    "Seal SEA-1 × 1, inspect (30 in 100 renewed)",
    "Releases 0.2 l coolant",
  ]);
});

test("neighbors alike but for their cylinder share a row, in file order", () => {
  const coil = (n: number, rest: Partial<Step> = {}) =>
    step({ id: `coil-${n}`, label: `Coil ${n}`, after: ["cover"], ...rest });
  const rows = alike(
    [step({ id: "cover", label: "Cover" }), coil(1), coil(2), coil(3, { remove: [2, 3, 5] }), coil(4)],
    (id) => id,
    say,
  );
  expect(rows.map((row) => row.map((one) => one.id))).toEqual([
    ["cover"],
    ["coil-1", "coil-2"],
    ["coil-3"],
    ["coil-4"],
  ]);
});

test("plugs that differ by place are said once a place", () => {
  const target = (id: string, rest: object) => ({ id, work: "plug", ...rest });
  const own = { part: "PLG-2", reach_mm: 12.7, torque_nm: 17 };
  const targets = [
    target("plug-1-in", { position: "intake side" }),
    target("plug-1-out", { position: "exhaust side", plug: own }),
    target("plug-2-out", { position: "exhaust side", plug: own }),
  ];
  expect(ownPlugs({ targets } as unknown as Profile, say)).toEqual([
    ["Plug, exhaust side", "PLG-2, reach 12.7 mm, 17 N·m (12.5 lb-ft)"],
  ]);
});
