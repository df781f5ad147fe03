import { expect, test } from "vitest";
import type { Option } from "../../api/client";
import { formatter } from "../../shared/format";
import { against, lookedAt, why } from "./routes";

const option = (rest: Partial<Option>): Option => ({
  label: "From beneath",
  in_force: false,
  pinned: false,
  reason: "",
  added_minutes: 0,
  quoted_hours: 1.6,
  added_hours: 0,
  total_cents: 1,
  added_cents: 0,
  equipment: [],
  missing: [],
  pins: {},
  descent: { length_minutes: 1, levels: 1, strokes: [] },
  ...rest,
});
const format = formatter({
  locale: "en-US",
  distance_unit: "km",
  currency: "USD",
  currency_exponent: 2,
  time_zone: "Europe/London",
});

test("says what another route comes to, either way", () => {
  expect(against(option({ added_hours: 0.3, added_cents: 7491 }), format)).toBe("+0.3 h, +74.91");
  expect(against(option({ added_hours: -0.1, added_cents: -1343 }), format)).toBe("−0.1 h, −13.43");
  expect(against(option({ added_hours: 0, added_cents: null }), format)).toBe("the same hours");
  expect(against(option({ added_hours: 0, added_cents: 0 }), format)).toBe("the same hours and price");
});

test("says why the route in force is in force", () => {
  expect([
    why(option({ reason: "pinned" })),
    why(option({ reason: "least-work" })),
    why(option({ reason: "only-one" })),
  ]).toEqual(["pinned by you", "the least work", "the only one possible here"]);
});

test("lays over the route looked at, else the first other one", () => {
  const decisions = [
    {
      label: "Plug 5",
      options: [option({ label: "Now", in_force: true, descent: null }), option({}), option({ label: "Tilted" })],
    },
  ];
  expect(lookedAt(decisions, "Tilted")?.label).toBe("Tilted");
  expect(lookedAt(decisions, "Now")?.label).toBe("From beneath");
  expect(lookedAt(undefined, null)).toBeUndefined();
});
