import type { DayJob, DayPage } from "../api/client";
import type { Spot } from "./ChosenJob";
import { extent } from "./course";
import { listOf } from "./words";

/** How far a press may wander before it carries a job along, in pixels. */
export const SLACK = 6;

/** Where in a person's list a job comes that is let go at an instant: behind all whose middle lies before it. */
export function spotAt(page: DayPage, job: DayJob, person: number, minutes: number): Spot {
  const others = listOf(page, person).filter((one) => one.id !== job.id);
  const before = others.filter((one) => {
    const [from, to] = extent(one);
    return one.begun || (from + to) / 2 < minutes;
  });
  return { person, place: before.length };
}

/** The row a height belongs to. */
export function rowAt(tops: number[], y: number): number {
  const below = tops.findIndex((top) => top > y);
  return below === -1 ? tops.length - 1 : Math.max(below - 1, 0);
}
