import { expect, test } from "vitest";
import { byHand, cents } from "./adjusted";

const none = { hours: "", reason: "", discount: "", label: "" };
const set = (typed: Partial<typeof none>) => byHand({ ...none, ...typed }, 2.6, ["coil-5"], 2);

test("keeps hours as a difference from the computed ones, with the reason and the work they are for", () => {
  expect(set({ hours: "2.0", reason: " known car " }).set).toEqual({ hours: { by_hours: -0.6, reason: "known car", targets: ["coil-5"] } });
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

test("reads amounts to the cent, in the way either locale writes them", () => {
  expect(["15", "15.00", "15,50", "1,234.50", "1 234"].map((text) => cents(text, 2))).toEqual([1500, 1500, 1550, 123450, 123400]);
  expect(["15.005", "-5", "1.2.3", ""].map((text) => cents(text, 2))).toEqual([undefined, undefined, undefined, undefined]);
  expect(cents("1200", 0)).toBe(1200);
});
