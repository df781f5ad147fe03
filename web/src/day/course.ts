import type { DayJob, Descent } from "../api/client";

type Stroke = Descent["strokes"][number];

/** A part of a job's way as it lies on the day: minutes after now. */
export interface Laid {
  from: number;
  to: number;
  depth: number;
  kind: Stroke["kind"];
  done: boolean;
}

/** Minutes of a segment as they were reckoned; one that lasts until the next opening has none of its own. */
const reckoned = (segment: DayJob["segments"][number]) => segment.minutes ?? 0;

/**
 * A job's own way (layers down, work, back up) laid where the board will most likely have it: each minute of it at the
 * minute of the day on which it falls. What is done lies before now.
 */
export function laidOut(job: DayJob): Laid[] {
  const { descent, done_minutes: done } = job;
  const before = descent.strokes
    .filter((stroke) => stroke.start + stroke.minutes <= done + 1e-6)
    .map((stroke) => put(stroke, stroke.start - done, stroke.start + stroke.minutes - done, true));
  return [...before, ...pieces(job).flatMap((piece) => cut(descent, piece))];
}

interface Piece {
  /** Of the job's own minutes. */
  start: number;
  end: number;
  /** Of the day. */
  from: number;
  to: number;
}

/** The job's minutes by the stretches of the day they fall on. */
function pieces(job: DayJob): Piece[] {
  const starts: number[] = [];
  let at = job.done_minutes;
  job.segments.forEach((segment, i) => {
    starts.push(at);
    if (!(i === 0 && isCooling(job))) at += reckoned(segment);
  });
  return job.segments.flatMap((segment, i) => {
    const parts = job.course.filter((part) => part.segment === i);
    const whole = parts.reduce((sum, part) => sum + part.to - part.from, 0);
    const minutes = i === 0 && isCooling(job) ? 0 : reckoned(segment);
    let done = 0;
    return parts.map((part) => {
      const start = (starts[i] ?? 0) + (minutes * done) / Math.max(whole, 1e-9);
      done += part.to - part.from;
      return { start, end: (starts[i] ?? 0) + (minutes * done) / Math.max(whole, 1e-9), from: part.from, to: part.to };
    });
  });
}

/** A wait before anything is done, which is no part of the job's own way. */
export const isCooling = (job: DayJob) =>
  !job.begun && job.segments[0]?.kind === "wait" && job.segments[0].holds_bay !== true;

function cut(descent: Descent, piece: Piece): Laid[] {
  const across = (piece.to - piece.from) / Math.max(piece.end - piece.start, 1e-9);
  return descent.strokes.flatMap((stroke) => {
    const start = Math.max(stroke.start, piece.start);
    const end = Math.min(stroke.start + stroke.minutes, piece.end);
    if (end - start < 1e-6) return [];
    return [put(stroke, piece.from + (start - piece.start) * across, piece.from + (end - piece.start) * across, false)];
  });
}

const put = (stroke: Stroke, from: number, to: number, done: boolean): Laid => ({
  from,
  to,
  depth: stroke.depth,
  kind: stroke.kind,
  done,
});

/** When a job is on the board: from its first minute (what is done of it before now) to its middle end. */
export function extent(job: DayJob): [number, number] {
  const ends = job.course.map((part) => part.to);
  const from = Math.min(-job.done_minutes || Infinity, ...job.course.map((part) => part.from));
  return [job.done_minutes > 0 ? Math.min(from, -job.done_minutes) : from, Math.max(...ends, 0)];
}

/** Jobs that run at one time are drawn in lanes below one another: another descent in the open water of a soak. */
export function lanes(jobs: DayJob[]): Map<string, number> {
  const free: number[] = [];
  const found = new Map<string, number>();
  [...jobs]
    .sort((one, other) => extent(one)[0] - extent(other)[0])
    .forEach((job) => {
      const [from, to] = extent(job);
      const lane = free.findIndex((until) => until <= from + 1e-6);
      const at = lane === -1 ? free.length : lane;
      free[at] = Math.max(to, job.p95 ?? to);
      found.set(job.id, at);
    });
  return found;
}
