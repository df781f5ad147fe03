import type { DayJob, DayPage, DayPreview } from "../api/client";
import type { Formatter } from "../shared/format";

export const of100 = (share: number) => Math.round(share * 100);

/** Time of day of a local instant: "12:10". */
export const clock = (instant: string, format: Formatter, now: string) =>
  instant.slice(0, 10) === now.slice(0, 10) ? timeOf(instant, format) : format.wall(instant);

const timeOf = (instant: string, format: Formatter) => format.wallTime(instant);

/** "12:10 holds 93 → 71 of 100 (4-TRE-1M)", for every promise a move touches; or that nobody loses. */
export function previewWords(preview: DayPreview, page: DayPage, format: Formatter): string[] {
  if (preview.changes.length === 0) return ["Every promise holds as it did."];
  return preview.changes.map((change) => {
    const job = page.jobs.find((one) => one.id === change.job);
    const promise = job?.promise ? clock(job.promise, format, page.now) : "";
    return `${job?.plate ?? ""}, ${promise}: ${of100(change.before)} becomes ${of100(change.after)} of 100`;
  });
}

/** The promise that needs somebody first: sinking, nobody called yet. */
export const sinking = (page: DayPage): DayJob | undefined =>
  page.jobs
    .filter((job) => job.call_by !== null && job.called === null)
    .sort((one, other) => (one.call_by ?? "").localeCompare(other.call_by ?? ""))[0];

/** Jobs in a person's list, in its order. */
export const listOf = (page: DayPage, person: number) => page.jobs.filter((job) => job.person === person);

export const nameOf = (page: DayPage, person: number) => page.people.find((one) => one.id === person)?.name ?? "";

/** "3 at work · 2 bays · 6 cars". */
export function summary(page: DayPage): string {
  const people = page.people.filter((person) => person.at_work.some((span) => span.from <= 0 && span.to > 0)).length;
  const count = (number: number, one: string, many: string) => `${number} ${number === 1 ? one : many}`;
  return [`${people} at work`, count(page.bays.length, "bay", "bays"), count(page.jobs.length, "car", "cars")].join(
    " · ",
  );
}

/** Hours of a day that are taken, and that its people are at work from now on. */
export function fullness(page: DayPage, day: DayPage["days"][number]): { taken: number; whole: number } {
  const taken = page.load.filter((row) => row.date === day.date).reduce((sum, row) => sum + row.minutes, 0);
  const spans = page.people.flatMap((person) => person.at_work);
  const within = spans.map((span) => Math.min(span.to, day.to) - Math.max(span.from, day.from));
  return { taken: taken / 60, whole: within.filter((minutes) => minutes > 0).reduce((sum, one) => sum + one, 0) / 60 };
}

const FIVE = 5 * 60_000; // nobody's day runs to the minute

/** What somebody has today, in the order it will most likely run, with its local instants. */
export function ownDay(page: DayPage, person: number): { job: DayJob; from: string; to: string }[] {
  const today = page.days[0];
  const instant = (minutes: number) =>
    new Date(Math.round((Date.parse(`${page.now}Z`) + minutes * 60_000) / FIVE) * FIVE).toISOString().slice(0, 16);
  return listOf(page, person)
    .flatMap((job) => {
      const [first, last] = [job.course[0], job.course.at(-1)];
      return first && last ? [{ job, first: first.from, last: last.to }] : [];
    })
    .filter((row) => today !== undefined && row.first < today.to)
    .sort((one, other) => one.first - other.first)
    .map(({ job, first, last }) => ({ job, from: instant(first), to: instant(last) }));
}
