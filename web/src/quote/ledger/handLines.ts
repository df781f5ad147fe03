import type { Scope } from "../../api/client";

/** Other work or a free part on a quote, as the scope keeps it. */
export type HandLine = NonNullable<Scope["lines"]>[number];

/** What was entered into the fields; null where nothing was. */
export interface EnteredLine {
  label: string;
  class: HandLine["class"];
  quantity: number | null;
  each: number | null;
}

export type LineProblems = Partial<Record<keyof EnteredLine, string>>;

/** What a line is counted in. */
export const COUNTED: Record<HandLine["class"], { name: string; unit: string; each: string }> = {
  labor: { name: "Work", unit: "Hours", each: "An hour" },
  parts: { name: "Part", unit: "Pieces", each: "Each" },
  fees: { name: "Fee", unit: "Times", each: "Each" },
};

export const blank = (rateCents: number | null): EnteredLine => ({
  label: "",
  class: "labor",
  quantity: 1,
  each: rateCents,
});

/** Another kind of line is counted in its own way: the shop's rate for an hour of work, nothing yet for the rest. */
export const asKind = (typed: EnteredLine, kind: HandLine["class"], rateCents: number | null): EnteredLine => ({
  ...typed,
  class: kind,
  quantity: typed.quantity ?? 1,
  each: kind === "labor" ? rateCents : typed.class === "labor" ? null : typed.each,
});

/** What the fields say as the scope keeps it, or what is wrong with each. */
export function handLine(typed: EnteredLine): { line?: HandLine; problems: LineProblems } {
  const problems: LineProblems = {};
  const label = typed.label.trim();
  if (label === "") problems.label = "Say what it is: the customer reads it.";
  if (typed.quantity === null || typed.quantity <= 0) problems.quantity = "More than 0.";
  else if (typed.quantity > 999) problems.quantity = "At most 999.";
  if (typed.each === null) problems.each = "Say what it costs; 0 is free.";
  if (Object.keys(problems).length > 0) return { problems };
  return {
    line: { label, class: typed.class, quantity: typed.quantity ?? 1, each_cents: typed.each ?? 0 },
    problems,
  };
}
