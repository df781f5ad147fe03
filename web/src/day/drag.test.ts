import { expect, test } from "vitest";
import type { DayJob, DayPage } from "../api/client";
import { rowAt, spotAt } from "./drag";

const job = (id: string, person: number, from: number, to: number, begun = false) =>
  ({ id, person, begun, p95: to, course: [{ segment: 0, kind: "work", from, to, bay: null }] }) as unknown as DayJob;

test("a job let go comes behind those whose middle lies before it, never before one that is in work", () => {
  const mine = job("mine", 1, 0, 60);
  const jobs = [mine, job("in work", 2, 0, 200, true), job("a", 2, 200, 300), job("b", 2, 300, 400)];
  const page = { jobs } as unknown as DayPage;
  expect(spotAt(page, mine, 2, 10)).toEqual({ person: 2, place: 1 });
  expect(spotAt(page, mine, 2, 260)).toEqual({ person: 2, place: 2 });
  expect(spotAt(page, mine, 2, 900)).toEqual({ person: 2, place: 3 });
  expect(spotAt(page, mine, 1, 900)).toEqual({ person: 1, place: 0 });
});

test("a height belongs to the row it lies in", () => {
  expect([0, 35, 200, 999].map((y) => rowAt([30, 150], y))).toEqual([0, 0, 1, 1]);
});
