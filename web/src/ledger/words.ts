import type { LedgerPage } from "../api/client";
import { CONSTRUCTIONS, type Construction } from "../quote/vehicle/plugPasts";
import { type Formatter, list } from "../shared/format";

type Learned = NonNullable<LedgerPage["learned"]>;
type Row = Learned["engines"][number];
type Task = Learned["tasks"][number];
type Protocol = Learned["protocols"][number];
type Lately = NonNullable<LedgerPage["lesson"]>["lately"];
type Say = Pick<Formatter, "figure" | "money">;

/** How far from the estimate, in words: "6 % over". */
export function overWords(over: number | null): string {
  if (over === null) return "not known";
  const share = Math.round(over * 100);
  if (share === 0) return "as estimated";
  return `${Math.abs(share)} % ${share > 0 ? "over" : "under"}`;
}

const signed = (hours: number, say: Say) => say.figure(hours, 1).replace("-", "−");

/** What an engine costs: its hours beyond the quote, and how surely. */
export function costWords(row: Row, say: Say): string {
  const jobs = `${row.jobs} ${row.jobs === 1 ? "job" : "jobs"}`;
  if (row.too_few) return `${jobs}: too few to say, about ten more will do`;
  const { hours_lost_low: low, hours_lost_high: high } = row;
  const range = low === null || high === null ? "" : `, ${signed(low, say)} to ${signed(high, say)} h beyond the quote`;
  const held = row.held === null ? "" : `; ${Math.round(row.held * 100)} of 100 within the promise`;
  return `${overWords(row.over)}: ${jobs}${range}${held}`;
}

const STEPS: Record<string, string> = { remove: "off", refit: "on", work: "work" };

/** A step of an engine: "Upper manifold off, JIV6". */
export function stepWords({ engine, label, part }: Pick<Task, "engine" | "label" | "part">): string {
  return `${label} ${STEPS[part] ?? part}, ${engine}`;
}

/** What a step takes beyond what was reckoned. */
export function stepCostWords(row: Task, say: Say): string {
  const jobs = `${row.jobs} ${row.jobs === 1 ? "job" : "jobs"}`;
  const { minutes_lost_low: low, minutes_lost_high: high } = row;
  const range = low === null || high === null ? "" : `, ${signed(low / 60, say)} to ${signed(high / 60, say)} h in all`;
  const over = overWords(row.over);
  const moved = over === "as estimated" ? "as reckoned" : `${over} what was reckoned`;
  return `${moved}: ${jobs}${range}`;
}

/** A month of the ledger. */
export function monthWords(row: Row, say: Say): string {
  const jobs = `${row.jobs} ${row.jobs === 1 ? "job" : "jobs"}`;
  const held = row.held === null ? "" : `; ${Math.round(row.held * 100)} of 100 within the promise`;
  return `${jobs}, ${signed(row.hours_lost, say)} h beyond the quote${held}`;
}

/** A soak and what it was used on. */
export function protocolName({ construction, soak }: Protocol): string {
  const plugs = `${CONSTRUCTIONS[construction as Construction]} plugs`;
  return `${soak === "none" ? "no soak" : `${soak.replaceAll("-", " ")} soak`}, ${plugs}`;
}

/** What came of a soak: how many broke, how many were expected to, between what shares that lies. */
export function protocolWords({ share, low, high, expected, too_few: tooFew }: Protocol): string {
  if (tooFew || share === null || low === null || high === null) return "too few plugs to say";
  const of = (value: number) => (value < 0.1 ? Math.round(value * 1000) / 10 : Math.round(value * 100));
  return `${of(share)} of 100 (${of(low)} to ${of(high)}); ${Math.round(expected)} were expected to`;
}

const of100 = (share: number | null) => Math.round((share ?? 0) * 100);

/** What the lesson would have done to the promises of the last months. */
export function heldWords({ days, jobs, held, would_held: would }: Lately): string {
  const months = Math.round(days / 30);
  if (jobs === 0) return `No job was finished in the last ${months} months.`;
  const now = `The promise for 80 of 100 held for ${of100(held.share)} in the last ${months} months`;
  return `${now}; with the lesson it would have held for ${of100(would.share)}.`;
}

/** How far estimates were off, and would have been. */
export function offWords({ off_hours: off, would_off_hours: would }: Lately, say: Pick<Say, "figure">): string {
  if (off === null || would === null) return "";
  return `Estimates were ${say.figure(off, 2)} h off, and would have been ${say.figure(would, 2)}.`;
}

/** What the quotes would have come to. */
export function moreWords({ jobs, more_cents: cents }: Lately, say: Pick<Say, "money">): string {
  if (jobs === 0) return "";
  if (cents === 0) return "Quotes would have come to the same.";
  return `The labor quoted would have come to ${say.money(Math.abs(cents))} ${cents > 0 ? "more" : "less"}.`;
}

/** Between which shares an engine's work goes beyond its estimate. */
export const rangeWords = (low: number, high: number): string => `between ${overWords(low)} and ${overWords(high)}`;

/** Cars that came back to us: how many, and with what. */
export function comebackWords(rows: LedgerPage["comebacks"], jobs: number): string {
  const all = rows.reduce((sum, row) => sum + row.count, 0);
  if (all === 0) return `None of ${jobs} ${jobs === 1 ? "job" : "jobs"}.`;
  return `${all} of ${jobs}: ${list(rows.map((row) => `${row.count} × ${row.work} on ${row.engine}`))}.`;
}

export type Share = Learned["coverage"]["estimated"]["p80"];

/** Whether a promise holds, as far as so many can tell: "…76 of 100 were (68 to 83), by 120 jobs". */
export function holdsWords(promised: number, share: Share, by: string): string {
  if (share.share === null || share.low === null || share.high === null) return "no jobs yet";
  const of = (value: number) => Math.round(value * 100);
  const sure = `${of(share.share)} of 100 were (${of(share.low)} to ${of(share.high)})`;
  return `${promised} of 100 should be within; ${sure}, by ${by}`;
}

/** Engines by what they cost, the dearest first; those that tell too little last. */
export function dearest(rows: Row[]): Row[] {
  return [...rows].sort((a, b) => Number(a.too_few) - Number(b.too_few) || b.hours_lost - a.hours_lost);
}

/** What a file would bring along: "40 jobs; 2 are here already; 1 stays out." */
export function pastWords({ added, known, rejected }: { added: number; known: number; rejected: number }): string {
  const said = [
    `${added} ${added === 1 ? "job" : "jobs"} to take`,
    known && `${known} here already`,
    rejected && `${rejected} cannot be taken`,
  ];
  return `${said.filter(Boolean).join("; ")}.`;
}
