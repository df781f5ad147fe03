import { expect, test } from "vitest";
import { inWords } from "./inWords";

const say = (value: unknown, name = "setting") => inWords(value, name, (cents) => (cents / 100).toFixed(2));

test("says settings the way a foreman reads them", () => {
  expect(say(14_500, "rate_cents")).toBe("145.00");
  expect(say(0.65)).toBe("0.65");
  expect(say([4, 8, 20])).toBe("4 / 8 / 20");
  expect(say({ none: 1, light: 1.15 })).toBe("none 1, light 1.15");
  expect(say([{ up_to_cents: 2000, factor: 2 }, { up_to_cents: null, factor: 1.25 }], "markup")).toBe("up to 20.00, factor 2; up to none, factor 1.25");
  expect([say([]), say(false), say(null), say("profile")]).toEqual(["none", "no", "none", "profile"]);
});
