import { expect, test } from "vitest";
import type { Schema } from "./figures";
import { formatter } from "../shared/format";
import { inWords } from "./inWords";

const shop = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "UTC",
});
const say = (value: unknown, schema: Schema = {}) => inWords(value, schema, shop).replaceAll("\u00a0", " ");
const unit = (name: Schema["x-unit"]): Schema => ({ type: "number", "x-unit": name });

test("says figures with what they count", () => {
  expect(say(14_500, unit("cents"))).toBe("145.00");
  expect([say(0.65, unit("share")), say(0.003, unit("share")), say(6, unit("percent"))]).toEqual([
    "65 %",
    "0.3 %",
    "6 %",
  ]);
  expect([
    say(1.15, unit("factor")),
    say(20, unit("minutes")),
    say(0.5, unit("hours")),
    say(12, unit("years")),
    say(2),
  ]).toEqual(["× 1.15", "20 min", "0.5 h", "12 years", "2"]);
  expect(say([4, 8, 20], { type: "array", items: unit("minutes") })).toBe("4 / 8 / 20 min");
  expect([say([]), say(false), say(null), say("used-parts")]).toEqual(["none", "no", "none", "used parts"]);
});

test("says groups the way a foreman reads them", () => {
  const brackets: Schema = {
    type: "array",
    items: {
      type: "object",
      properties: { up_to_cents: { anyOf: [unit("cents"), { type: "null" }] }, factor: unit("factor") },
    },
  };
  expect(
    say(
      [
        { up_to_cents: 2000, factor: 2 },
        { up_to_cents: null, factor: 1.25 },
      ],
      brackets,
    ),
  ).toBe("up to 20.00 × 2; above × 1.25");
  const wear: Schema = { type: "object", properties: { none: unit("factor"), light: unit("factor") } };
  expect(say({ none: 1, light: 1.15 }, wear)).toBe("none × 1, light × 1.15");
  const soaks: Schema = {
    type: "object",
    properties: {
      short: { type: "object", properties: { wait: unit("minutes"), overnight: { type: "boolean" } } },
      overnight: { type: "object", properties: { wait: unit("minutes"), overnight: { type: "boolean" } } },
    },
  };
  expect(say({ short: { wait: 20, overnight: false }, overnight: { wait: 0, overnight: true } }, soaks)).toBe(
    "short: wait 20 min; overnight: wait 0 min, overnight",
  );
  const taxes: Schema = {
    type: "array",
    items: {
      type: "object",
      properties: {
        label: { type: "string" },
        percent: unit("percent"),
        on: { type: "array", items: { enum: ["labor", "parts"] } },
      },
    },
  };
  expect(say([{ label: "Sales tax", percent: 7.5, on: ["parts"] }], taxes)).toBe("Sales tax, 7.5 %, on parts");
  const day: Schema = { anyOf: [{ type: "array", items: { type: "string" } }, { type: "null" }] };
  const days: Schema = { type: "object", properties: { mon: day, sun: day } };
  expect(say({ mon: ["08:00", "17:30"], sun: null }, days)).toBe("Mon 08:00 to 17:30, Sun closed");
});
