import type { BenchAsked } from "../api/client";

export type Unit = "mm" | "in";

/** A leaf as it is typed: empty until somebody types it. */
export interface Leaf {
  value: number | null;
  unit: Unit;
}

export type Reading = NonNullable<BenchAsked["gap"]>["leaves"][number];

/** The leaves that hold a figure. */
export const readings = (leaves: Leaf[]): Reading[] =>
  leaves.flatMap(({ value, unit }) => (value !== null && value > 0 ? [{ value, unit }] : []));

/** The place of a leaf among those typed, for a question about the nth reading. */
export const placeOf = (leaves: Leaf[], reading: number): number =>
  leaves.map((leaf, i) => ({ leaf, i })).filter(({ leaf }) => readings([leaf]).length > 0)[reading]?.i ?? 0;
