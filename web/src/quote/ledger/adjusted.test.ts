import { expect, test } from "vitest";
import { type Adjusted, byHand } from "./adjusted";

const none: Adjusted = { hours: null, reason: "", guide: null, discount: null, label: "" };
const set = (typed: Partial<Adjusted>) => byHand({ ...none, ...typed }, 2.6, ["coil-5"]);

test("keeps hours as a difference from the computed ones, with the reason and the work they are for", () => {
  expect(set({ hours: 2, reason: " known car " }).set).toEqual({
    hours: { by_hours: -0.6, reason: "known car", targets: ["coil-5"] },
  });
  expect(set({ hours: 3.1, reason: "rounded nut" }).set?.hours?.by_hours).toBe(0.5);
});

test("the computed hours entered again, or nothing, change nothing", () => {
  expect(set({ hours: 2.6, reason: "" }).set).toEqual({});
  expect(set({}).set).toEqual({});
});

test("keeps a guide's hours beside ours, for the work they are for", () => {
  expect(set({ guide: 2.25 }).set).toEqual({ reference: { hours: 2.3, targets: ["coil-5"] } });
  expect(set({ guide: 120 })).toEqual({ problems: { guide: expect.stringContaining("100") } });
});

test("says beside the field what is wrong, and sets nothing", () => {
  expect(set({ hours: 250, reason: "x" })).toEqual({ problems: { hours: expect.stringContaining("100") } });
  expect(set({ hours: 2 }).problems).toEqual({ reason: expect.any(String) });
  expect(set({ discount: 1000 }).problems).toEqual({ label: expect.any(String) });
  expect(set({ discount: 1000, label: "Goodwill" }).set).toEqual({ discount: { cents: 1000, label: "Goodwill" } });
});
