import { expect, test } from "vitest";
import type { DayJob } from "../api/client";
import { extent, isCooling, lanes, laidOut } from "./course";

const descent = {
  length_minutes: 60,
  levels: 2,
  strokes: [
    { kind: "remove", ref: "cover", label: "Cover", start: 0, minutes: 20, depth: 1, cylinder: null },
    { kind: "work", ref: "plug", label: "Plug", start: 20, minutes: 20, depth: 2, cylinder: 1 },
    { kind: "refit", ref: "cover", label: "Cover", start: 40, minutes: 20, depth: 1, cylinder: null },
  ],
} as unknown as DayJob["descent"];

const job = (given: Partial<DayJob>): DayJob =>
  ({
    id: "a",
    begun: false,
    done_minutes: 0,
    p95: null,
    segments: [{ kind: "work", minutes: 60, people: 1 }],
    course: [{ segment: 0, kind: "work", from: 100, to: 190, bay: "1" }],
    descent,
    ...given,
  }) as DayJob;

const spans = (one: DayJob) => laidOut(one).map((part) => [Math.round(part.from), Math.round(part.to), part.depth]);

test("a job slower than reckoned is drawn as long as it will take", () => {
  expect(spans(job({}))).toEqual([
    [100, 130, 1],
    [130, 160, 2],
    [160, 190, 1],
  ]);
});

test("a night between two parts of a work parts its drawing where it falls", () => {
  const course = [
    { segment: 0, kind: "work", from: 100, to: 130, bay: "1" },
    { segment: 0, kind: "work", from: 1000, to: 1030, bay: "1" },
  ] as DayJob["course"];
  expect(spans(job({ course }))).toEqual([
    [100, 120, 1],
    [120, 130, 2],
    [1000, 1010, 2],
    [1010, 1030, 1],
  ]);
});

test("cooling lies before the job's own way, and is none of it", () => {
  const cooling = job({
    segments: [
      { kind: "wait", minutes: 50, holds_bay: false },
      { kind: "work", minutes: 60, people: 1 },
    ],
    course: [
      { segment: 0, kind: "wait", from: 0, to: 50, bay: null },
      { segment: 1, kind: "work", from: 50, to: 110, bay: "1" },
    ],
  });
  expect(isCooling(cooling)).toBe(true);
  expect(spans(cooling)[0]).toEqual([50, 70, 1]);
  expect(extent(cooling)).toEqual([0, 110]);
});

test("what is done of a job in work lies before now", () => {
  const begun = job({
    begun: true,
    done_minutes: 20,
    segments: [{ kind: "work", minutes: 40, people: 1 }],
    course: [{ segment: 0, kind: "work", from: 0, to: 40, bay: "1" }],
  });
  expect(spans(begun)).toEqual([
    [-20, 0, 1],
    [0, 20, 2],
    [20, 40, 1],
  ]);
  expect(laidOut(begun).map((part) => part.done)).toEqual([true, false, false]);
  expect(extent(begun)).toEqual([-20, 40]);
});

test("jobs at one time lie below each other, one after another share a lane", () => {
  const at = (id: string, from: number, to: number) =>
    job({ id, course: [{ segment: 0, kind: "work", from, to, bay: "1" }] as DayJob["course"] });
  const found = lanes([at("a", 0, 60), at("b", 30, 50), at("c", 60, 90)]);
  expect([...found.entries()].sort()).toEqual([
    ["a", 0],
    ["b", 1],
    ["c", 0],
  ]);
});
