import type { Bundle, Sheet } from "../api/client";
import type { Formatter } from "../shared/format";

type Reason = NonNullable<Sheet["tasks"]>[number]["reasons"][number];
type Trouble = NonNullable<Sheet["trouble"]>;
type OddsFactor = Trouble["plugs"][number]["factors"][number];
const plain = (code: string | null) => (code ?? "").replaceAll("-", " ");

const SOURCES: Record<string, string> = { house: "house setting", engine: "engine profile" };

const REASONS: Record<string, (level: string) => string> = {
  rust: (level) => (level === "none" ? "no rust" : `${level} rust`),
  brittle: () => "brittle connectors",
  bodge: () => "earlier bodge",
  reach: (level) => `reach ${level}`,
};

/** What multiplies a task's minutes, and whose figure it is: "× 1.15 light rust (house setting)". */
export function reasonWords(reason: Reason, format: Formatter) {
  const why = REASONS[reason.kind]?.(plain(reason.level)) ?? plain(reason.kind);
  return `× ${format.figure(reason.factor)} ${why} (${SOURCES[reason.source] ?? reason.source})`;
}

const ODDS: Record<string, (level: string, amount: number, format: Formatter) => string> = {
  distance: (_level, amount, format) => `${format.figure(amount, 2)} intervals since the last change`,
  years: (_level, amount, format) => `${format.years(amount)} since the last change`,
  head: (level) => `the ${level} head`,
  wear: (level) => (level === "none" ? "no rust and a dry well" : `${level} rust or a wet well`),
  compound: () => "compound used last time",
  learned: (level) => `${level} plugs taken out here before`,
  soak: (level) => (level === "none" ? "no soak" : `the ${level} soak`),
};

/** What moves the odds of a plug: "odds × 1.33 for 1.60 intervals since the last change". */
export function oddsWords(factor: OddsFactor, format: Formatter) {
  const why = ODDS[factor.kind]?.(plain(factor.level), factor.amount ?? 0, format) ?? plain(factor.kind);
  return `odds × ${format.figure(factor.times, 2)} for ${why}`;
}

/** Where the work of a bundle lies, next to the work chosen. */
export function openingWords({ opening }: Pick<Bundle, "opening">) {
  if (!opening) return "extra";
  if (opening.bank === null) return opening.open ? "same opening" : "more to open";
  const place = opening.same ? "same bank" : `${opening.bank} bank`;
  return opening.open ? place : `${place}, more to open`;
}

type Learned = NonNullable<Sheet["learned"]>;

/** How far, and from what: "Learned from 14 jobs, 6 to 22 % above the estimate". */
export function learnedFrom({ jobs, over_low: low, over_high: high }: Omit<Learned, "hours" | "estimated_hours">) {
  const from = jobs === 0 ? "Learned from other engines" : `Learned from ${jobs} ${jobs === 1 ? "job" : "jobs"}`;
  const [least, most] = [Math.round(low * 100), Math.round(high * 100)];
  if (least >= 0) return `${from}, ${least} to ${most} % above the estimate`;
  if (most <= 0) return `${from}, ${-most} to ${-least} % below the estimate`;
  return `${from}, ${-least} % below to ${most} % above the estimate`;
}

/** Where hours come from that were learned, both figures: "…: 3.4 h, not 2.9 h." */
export function learnedWords(learned: Learned, format: Pick<Formatter, "hours">): string {
  const { hours, estimated_hours: before } = learned;
  const against =
    hours === before
      ? `${format.hours(hours)} h either way`
      : `${format.hours(hours)} h, not ${format.hours(before)} h`;
  return `${learnedFrom(learned)}: ${against}.`;
}
