import { expect, test } from "vitest";
import { byHand } from "./adjusted";

const none = { hours: "", reason: "", discount: "", label: "" };
const set = (typed: Partial<typeof none>) => byHand({ ...none, ...typed }, 2.6, ["coil-5"], 2);

test("keeps hours as a difference from the computed ones, with the reason and the work they are for", () => {
  expect(set({ hours: "2.0", reason: " known car " }).set).toEqual({
    hours: { by_hours: -0.6, reason: "known car", targets: ["coil-5"] },
  });
  expect(set({ hours: "3,1", reason: "rounded nut" }).set?.hours?.by_hours).toBe(0.5);
});

test("the computed hours typed again, or nothing, change nothing", () => {
  expect(set({ hours: "2.6", reason: "" }).set).toEqual({});
  expect(set({}).set).toEqual({});
});

test("says beside the field what is wrong, and sets nothing", () => {
  expect(set({ hours: "2.25", reason: "x" })).toEqual({ problems: { hours: expect.stringContaining("2.5") } });
  expect(set({ hours: "two" }).problems.hours).toBeDefined();
  expect(set({ hours: "2.0" }).problems).toEqual({ reason: expect.any(String) });
  expect(set({ discount: "ten" }).set).toBeUndefined();
  expect(set({ discount: "10" }).problems).toEqual({ label: expect.any(String) });
});
