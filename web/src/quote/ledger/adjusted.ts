import type { ByHand } from "../scopes/scopeEdits";

/** What was entered into the fields; null where nothing was. */
export interface Adjusted {
  hours: number | null;
  reason: string;
  /** What a printed guide of the shop gives. */
  guide: number | null;
  discount: number | null;
  label: string;
}

export type Problems = Partial<Record<keyof Adjusted, string>>;

/**
 * What the fields say as the scope keeps it, or what is wrong with each.
 * @param computed hours as computed: the same hours entered again are no override
 * @param targets the work the hours are for
 */
export function byHand(typed: Adjusted, computed: number, targets: string[]): { set?: ByHand; problems: Problems } {
  const problems: Problems = {};
  const set: ByHand = {};
  const tenths = typed.hours === null ? 0 : Math.round(typed.hours * 10) - Math.round(computed * 10);
  if (typed.hours !== null && typed.hours >= 100) problems.hours = "Below 100 hours.";
  else if (tenths !== 0 && typed.reason.trim() === "")
    problems.reason = "Say why the hours differ from the computed ones.";
  else if (tenths !== 0) set.hours = { by_hours: tenths / 10, reason: typed.reason.trim(), targets };

  if (typed.guide !== null && typed.guide >= 100) problems.guide = "Below 100 hours.";
  else if (typed.guide) set.reference = { hours: Math.round(typed.guide * 10) / 10, targets };

  if (typed.discount) {
    if (typed.label.trim() === "") problems.label = "Say what the quote calls it.";
    else set.discount = { cents: typed.discount, label: typed.label.trim() };
  }
  return Object.keys(problems).length > 0 ? { problems } : { set, problems };
}
