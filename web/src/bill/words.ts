import type { BillPage } from "../api/client";
import { list } from "../shared/format";

type Draft = NonNullable<BillPage["draft"]>;
type Why = Draft["rows"][number]["why"][number];

const WHY: Record<Why, string> = {
  happened: "what happened",
  not_done: "not done",
  tried: "tried only",
  owed: "our warranty",
  limit: "held to the limit",
  follows: "follows the lines above",
};

/** Why a line differs from what was agreed: "what happened, not done". */
export const whyWords = (why: Why[]): string => why.map((one) => WHY[one]).join(", ");

const FACTS: Record<keyof Draft["facts"], string> = {
  broken: "broke",
  thread: "took the thread along",
  mishaps: "gave way",
  tried: "tried, not finished",
  not_done: "not done",
  owed: "under our warranty",
};

/** What came of the job beside what was agreed, a sentence for each: "Plug 3 broke". */
export const factWords = (facts: Draft["facts"]): string[] =>
  (Object.keys(FACTS) as (keyof Draft["facts"])[])
    .filter((key) => facts[key].length > 0)
    .map((key) => `${list(facts[key])} ${FACTS[key]}`);

type Means = BillPage["payments"][number]["means"];

export const MEANS: Record<Means, string> = { cash: "cash", card: "card", bank: "bank transfer", other: "other" };

type Line = Pick<Draft["rows"][number], "kind" | "label"> & { quantity?: number };

/** How a line is called, with how much of it: "Labor, 4.6 h", "Spark plug × 7". */
export const lineWords = (line: Line, figure: (value: number) => string): string => {
  if (line.kind === "labor") return `${line.label}, ${figure(line.quantity ?? 0)} h`;
  return (line.quantity ?? 1) > 1 ? `${line.label} × ${figure(line.quantity ?? 1)}` : line.label;
};

const ORDER = ["warranty", "labor", "diagnosis", "part", "by-hand", "consumable", "supplies", "fee"];
const place = (kind: string) => (ORDER.includes(kind) ? ORDER.indexOf(kind) : ORDER.length);

/** Lines in the order of a bill, what fell away among its like; consumables that cost nothing say nothing. */
export const shownRows = <T extends { kind: string; cents: number | null; agreed_cents?: number | null }>(
  rows: T[],
): T[] =>
  rows
    .filter((row) => row.kind !== "consumable" || row.cents || row.agreed_cents)
    .map((row, i) => ({ row, i }))
    .sort((a, b) => place(a.row.kind) - place(b.row.kind) || a.i - b.i)
    .map(({ row }) => row);
