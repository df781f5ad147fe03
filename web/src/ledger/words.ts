import type { LedgerPage } from "../api/client";
import type { Formatter } from "../shared/format";

type Learned = NonNullable<LedgerPage["learned"]>;
type Row = Learned["engines"][number];
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

/** A step that takes other than reckoned. */
export function taskWords({ engine, label, part, over }: Learned["tasks"][number]): string {
  return `${label} ${STEPS[part] ?? part} on ${engine}: ${overWords(over)}`;
}

/** Whether a promise holds, as far as so many jobs can tell. */
export function holdsWords(promised: number, share: Learned["coverage"]["estimated"]["p80"], jobs: number): string {
  if (share.share === null || share.low === null || share.high === null) return "no jobs yet";
  const of = (value: number) => Math.round(value * 100);
  const sure = `${of(share.share)} of 100 were (${of(share.low)} to ${of(share.high)})`;
  return `${promised} of 100 should be within; ${sure}, by ${jobs} jobs`;
}

/** Engines by what they cost, the dearest first; those that tell too little last. */
export function dearest(rows: Row[]): Row[] {
  return [...rows].sort((a, b) => Number(a.too_few) - Number(b.too_few) || b.hours_lost - a.hours_lost);
}
