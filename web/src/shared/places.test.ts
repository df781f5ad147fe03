import { expect, test } from "vitest";
import { currencies, exponentOf, localesFor, placeOf, timeZones } from "./places";

test("starts from where the browser is at home", () => {
  expect(placeOf("de-DE", "Europe/Berlin")).toEqual({
    locale: "de-DE",
    timeZone: "Europe/Berlin",
    currency: "EUR",
    paper: "a4",
    distance: "km",
  });
  expect(placeOf("en-US", "America/Chicago")).toMatchObject({ currency: "USD", paper: "letter", distance: "mi" });
  expect(placeOf("en-GB", "Europe/London")).toMatchObject({ currency: "GBP", paper: "a4", distance: "mi" });
  expect(placeOf("en", "UTC")).toMatchObject({ currency: "USD" });
});

test("offers the browser's own way of writing beside the common ones", () => {
  const ids = localesFor("is-IS").map((row) => row.id);
  expect(ids).toEqual(expect.arrayContaining(["is-IS", "en-US", "de-DE"]));
  expect(new Set(ids).size).toBe(ids.length);
});

test("knows currencies with their decimals, and time zones by their city", () => {
  expect(["USD", "JPY", "KWD"].map(exponentOf)).toEqual([2, 0, 3]);
  expect(currencies().find((row) => row.id === "EUR")?.words).toMatch(/Euro/);
  expect(timeZones().find((row) => row.id === "America/New_York")?.words).toContain("New York");
});
