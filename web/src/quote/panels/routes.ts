import type { Descent, Option, Priced, Sheet } from "../../api/client";
import type { Formatter } from "../../shared/format";
import { byHours } from "../scopes/works";

/** Why the route in force is in force, in words. */
export function why(option: Option): string {
  if (option.reason === "pinned") return "pinned by you";
  return option.reason === "only-one" ? "the only one possible here" : "the least work";
}

/** What another route would come to against the one in force: "+0.3 h, +74.91". */
export function against(option: Option, format: Formatter): string {
  const hours = option.added_hours === 0 ? "the same hours" : byHours(option.added_hours, format);
  if (option.added_cents === 0)
    return option.added_hours === 0 ? "the same hours and price" : `${hours}, the same price`;
  return option.added_cents === null ? hours : `${hours}, ${format.signed(option.added_cents)}`;
}

/** The option whose descent is laid over: the one looked at, else the nearest other one. */
export function lookedAt(decisions: Sheet["routes"], label: string | null): Option | undefined {
  const others = (decisions ?? []).flatMap((decision) => decision.options).filter((option) => option.descent);
  return others.find((option) => option.label === label) ?? others[0];
}

/**
 * The descent laid over the job's own: the route looked at, else another scope, else the same work where it is
 * easiest.
 */
export function laidOver(
  route: Option | undefined,
  others: Priced["others"],
  sheet: Sheet,
): { descent?: Descent | null; label: string } {
  if (route) return { descent: route.descent, label: route.label.toLowerCase() };
  const other = others.find((one) => one.descent);
  if (other) return { descent: other.descent, label: `scope ${other.index + 1}` };
  return { descent: sheet.compare?.descent, label: sheet.compare?.label ?? "" };
}

/** What a near tie spares the car. */
export const sparedWords: Record<"closing" | "battery" | "parts", string> = {
  closing: "no relearn or other closing work",
  battery: "the battery stays on",
  parts: "no new parts",
};
