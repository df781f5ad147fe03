import type { Content, Resolved } from "../../api/client";

export type Past = NonNullable<NonNullable<Content["history"]>["cylinders"]>[string];
export type Fitted = NonNullable<Past["fitted"]>;
export type Construction = Fitted["construction"];

/** Constructions as the trade says them. */
export const CONSTRUCTIONS: Record<Construction, string> = {
  "one-piece": "one-piece",
  "one-piece-long-reach": "one-piece, long reach",
  "multi-piece": "multi-piece",
};

/** A cylinder's own past in two or three words, for the tag on the drawing; empty when it shares the car's. */
export function tagOf(past: Past | undefined): string {
  if (!past) return "";
  const years = past.plugs_changed_years === undefined ? "" : `${past.plugs_changed_years} y`;
  return [years, past.fitted ? "other plug" : ""].filter(Boolean).join(", ") || "own past";
}

/** The pasts of a quote with one cylinder's entry changed; null is the car's word again, whatever was noted before. */
export function withPast(content: Content, number: number, change: Past | null): Content {
  const before = content.history?.cylinders ?? {};
  const key = String(number);
  const merged = change === null ? {} : { ...before[key], ...change };
  const entry = Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== undefined)) as Past;
  return { ...content, history: { ...content.history, cylinders: { ...before, [key]: entry } } };
}

/**
 * The history as it stands in the dialog: what was entered last over what the figures were made from, refused or not.
 */
export function asEntered(history: Resolved["history"], content: Content): Resolved["history"] {
  const entered = content.history?.cylinders ?? {};
  const merged = {
    ...history.cylinders,
    ...Object.fromEntries(
      Object.entries(entered).map(([key, own]) => [
        key,
        Object.keys(own).length === 0 ? own : { ...history.cylinders?.[key], ...own },
      ]),
    ),
  };
  const cylinders = Object.fromEntries(Object.entries(merged).filter(([, own]) => Object.keys(own).length > 0));
  return { ...history, cylinders };
}
