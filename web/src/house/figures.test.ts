import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { blank, drafted, type Schema, undrafted, UNITS } from "./figures";

const cents: Schema = { type: "integer", "x-unit": "cents" };
const share: Schema = { type: "number", "x-unit": "share" };
const factor: Schema = { type: "number", "x-unit": "factor" };
const brackets: Schema = {
  type: "array",
  items: { type: "object", properties: { up_to_cents: { anyOf: [cents, { type: "null" }] }, factor } },
};

test("what is not touched comes back as it was, for every kind of figure", () => {
  const days: Schema = {
    type: "object",
    properties: { mon: { anyOf: [{ type: "array", items: { type: "string" } }, { type: "null" }] } },
  };
  const all: [unknown, Schema][] = [
    [14_500, cents],
    [0.65, share],
    [0.003, share],
    [0.07, share],
    [0.999, share],
    [1.15, factor],
    [false, { type: "boolean" }],
    ["whole", { enum: ["whole", "used-parts"] }],
    [[4, 8, 20], { type: "array", items: { type: "number" } }],
    [
      [
        { up_to_cents: 2000, factor: 2 },
        { up_to_cents: null, factor: 1.25 },
      ],
      brackets,
    ],
    [{ mon: ["08:00", "17:30"] }, days],
    [{ mon: null }, days],
    [[], brackets],
  ];
  for (const [value, schema] of all)
    expect(undrafted(drafted(value, schema, 2), schema, 2, String)).toEqual({ value, faults: {} });
});

test("shows money and shares the way they are said, and takes them so", () => {
  expect([drafted(14_500, cents, 2), drafted(14_500, cents, 0), drafted(0.003, share, 2)]).toEqual([145, 14_500, 0.3]);
  expect([undrafted(1250.5, cents, 2, String).value, undrafted(7, share, 2, String).value]).toEqual([125_050, 0.07]);
});

test("finds what is no number, at its place, and leaves the rest to the server", () => {
  expect(
    undrafted(
      [
        { up_to_cents: 20, factor: 2 },
        { up_to_cents: null, factor: null },
      ],
      brackets,
      2,
      String,
    ).faults,
  ).toEqual({ "/1/factor": "Enter a number." });
  expect(undrafted(null, cents, 2, String).faults).toEqual({ "": "Enter a number." });
  expect(undrafted(700, share, 2, String)).toEqual({ value: 7, faults: {} });
});

test("a number in whose place a word may stand is never nothing", () => {
  const either: Schema = { anyOf: [{ ...factor, exclusiveMinimum: 0 }, { enum: ["stated", "halved"] }] };
  const back = (value: unknown) => undrafted(drafted(value, either, 2), either, 2, String).value;
  expect([back(0.5), back("halved")]).toEqual([0.5, "halved"]);
  expect(undrafted(null, either, 2, String).faults).toEqual({ "": "Enter a number." });
});

test("says a limit in the unit that is typed", () => {
  const fault = (value: number, schema: Schema) => undrafted(value, schema, 2, String).faults[""];
  expect([
    fault(2000000, { ...cents, maximum: 100_000_000 }),
    fault(700, { ...share, maximum: 1 }),
    fault(3, { ...share, minimum: 0.05 }),
  ]).toEqual(["Not above 1000000.", "Not above 100.", "Not below 5."]);
  expect([
    fault(0, { ...factor, exclusiveMinimum: 0 }),
    fault(2.5, { type: "integer" }),
    fault(2, { type: "integer" }),
  ]).toEqual(["Above 0.", "Enter a whole number.", undefined]);
});

test("a new row starts empty", () => {
  expect(blank(brackets.items ?? {})).toEqual({ up_to_cents: null, factor: null });
  expect(
    blank({
      type: "object",
      properties: { label: { type: "string" }, on: { type: "array", items: { enum: ["labor"] } } },
    }),
  ).toEqual({ label: "", on: [] });
});

test("every unit a house figure is declared in has its word", () => {
  const declared = readFileSync("../core/lib/nimble_ledger/house/settings.rb", "utf8");
  const units = [...new Set([...declared.matchAll(/unit: "([^"]+)"/g)].map(([, unit]) => unit ?? ""))];
  expect(units.length).toBeGreaterThan(8);
  expect(units.filter((unit) => unit !== "cents" && !(unit in UNITS))).toEqual([]);
});
