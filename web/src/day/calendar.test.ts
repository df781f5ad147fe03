import { expect, test } from "vitest";
import { absencesOf, daysOf, equipmentOf, equipmentText, regionName } from "./calendar";

const event = (from: string, to: string, whole_days: boolean, what = "") => ({ from, to, whole_days, what });

test("whole days of a file are each a day, once, up to the day before its end", () => {
  const events = [
    event("2026-12-24T00:00", "2026-12-27T00:00", true),
    event("2026-12-26T00:00", "2026-12-27T00:00", true),
    event("2026-12-28T09:00", "2026-12-28T10:00", false),
  ];
  expect(daysOf(events)).toEqual(["2026-12-24", "2026-12-25", "2026-12-26"]);
});

test("times of a file become absences with what they are for", () => {
  const events = [event("2026-12-28T09:00", "2026-12-28T10:00", false, "dentist")];
  expect(absencesOf(events, 4)).toEqual([
    { person: 4, from: "2026-12-28T09:00", to: "2026-12-28T10:00", why: "dentist" },
  ]);
});

test("a region is named in the shop's language, with its part", () => {
  expect(regionName("de", "en-GB")).toBe("Germany");
  expect(regionName("gb_sct", "de-DE")).toBe("Vereinigtes Königreich, SCT");
});

test("equipment is taken by commas as the ids engines ask for", () => {
  expect(equipmentOf("Two-post lift, , crane ")).toEqual(["two-post-lift", "crane"]);
  expect(equipmentOf(equipmentText(["two-post-lift", "crane"]))).toEqual(["two-post-lift", "crane"]);
});
