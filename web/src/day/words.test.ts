import { expect, test } from "vitest";
import type { DayJob, DayPage } from "../api/client";
import { formatter } from "../shared/format";
import { clock, fullness, ownDay, previewWords, sinking, summary } from "./words";

const english = formatter({
  locale: "en-GB",
  distance_unit: "mi",
  currency: "GBP",
  currency_exponent: 2,
  time_zone: "Europe/London",
});

const job = (id: string, given: Partial<DayJob>) =>
  ({ id, plate: id, call_by: null, called: null, ...given }) as DayJob;
const page = (given: Partial<DayPage>) =>
  ({ now: "2026-11-24T10:20", jobs: [], people: [], bays: [], load: [], ...given }) as unknown as DayPage;

test("a time of today stands alone, another with its day", () => {
  expect(clock("2026-11-24T12:10", english, "2026-11-24T10:20")).toBe("12:10");
  expect(clock("2020-11-25T12:10", english, "2026-11-24T10:20")).toContain("2020");
});

test("a move says each promise it touches, or that none is", () => {
  const board = page({ jobs: [job("4-TRE-1M", { promise: "2026-11-24T12:10" })] });
  const change = { job: "4-TRE-1M", before: 0.934, after: 0.71 };
  expect(previewWords({ ready: null, changes: [change] }, board, english)).toEqual([
    "4-TRE-1M, 12:10: 93 becomes 71 of 100",
  ]);
  expect(previewWords({ ready: null, changes: [] }, board, english)).toEqual(["Every promise holds as it did."]);
});

test("who is to be called first is called first, and nobody twice", () => {
  const later = job("b", { call_by: "2026-11-24T15:00" });
  const first = job("a", { call_by: "2026-11-24T11:00" });
  expect(sinking(page({ jobs: [later, first] }))?.id).toBe("a");
  expect(sinking(page({ jobs: [later, { ...first, called: "told" }] }))?.id).toBe("b");
  expect(sinking(page({}))).toBeUndefined();
});

test("a day is as full as its people's hours of it", () => {
  const day = { date: "2026-11-24", from: -60, to: 240 };
  const board = page({
    people: [
      {
        id: 1,
        name: "Col",
        at_work: [
          { from: 0, to: 60 },
          { from: 90, to: 240 },
          { from: 1000, to: 1200 },
        ],
      },
    ],
    load: [
      { person: "1", date: "2026-11-24", minutes: 90, at_work: 210 },
      { person: "1", date: "2026-11-25", minutes: 30, at_work: 200 },
    ],
    bays: ["1", "2"],
  });
  expect(fullness(board, day)).toEqual({ taken: 1.5, whole: 3.5 });
  expect(summary(board)).toBe("1 at work · 2 bays · 0 cars");
});

test("somebody's own day is what will most likely run today, in order, with its times", () => {
  const run = (id: string, from: number, to: number, person = 4) =>
    job(id, { person, course: [{ segment: 0, kind: "work", from, to, bay: null }] });
  const board = page({
    days: [{ date: "2026-11-24", from: -140, to: 430 }],
    jobs: [run("later", 90, 150), run("first", 0, 60), run("theirs", 0, 20, 5), run("tomorrow", 1290, 1400)],
  });
  expect(ownDay(board, 4).map(({ job, from, to }) => [job.id, from, to])).toEqual([
    ["first", "2026-11-24T10:20", "2026-11-24T11:20"],
    ["later", "2026-11-24T11:50", "2026-11-24T12:50"],
  ]);
});
