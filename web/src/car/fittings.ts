import type { Fitting } from "../api/client";
import type { Formatter } from "../shared/format";

export const FITTED: Record<Fitting["work"], string> = { plug: "Plug", coil: "Coil", wire: "Wire", boot: "Boot" };

/** What was fitted, where, when, by whom, and whether it is still ours to answer for. */
export function fittedWords(fitting: Fitting, format: Formatter): string {
  const place = fitting.cylinder === null ? "" : ` ${fitting.cylinder}`;
  const at = fitting.km === null ? "" : ` at ${format.distance(fitting.km)}`;
  const by = fitting.ours ? "by us" : `by ${fitting.by || "somebody else"}`;
  return `${FITTED[fitting.work]}${place}: ${format.day(fitting.on)}${at}, ${by}${warranty(fitting, format)}`;
}

function warranty({ warranty: ours }: Fitting, format: Formatter): string {
  if (!ours) return "";
  const until = [format.day(ours.until), ours.until_km === null ? "" : format.distance(ours.until_km)];
  return ours.holds ? `, under warranty until ${until.filter(Boolean).join(" or ")}` : ", warranty over";
}

/** What stands at a cylinder of the drawing: what of it is under our warranty. */
export function underWarranty(fittings: Fitting[], cylinder: number): string {
  const works = fittings
    .filter((fitting) => fitting.cylinder === cylinder && fitting.warranty?.holds)
    .map((fitting) => FITTED[fitting.work].toLowerCase());
  return works.length === 0 ? "" : `${[...new Set(works)].join(", ")}: our warranty`;
}
