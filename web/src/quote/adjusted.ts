import { cents } from "../shared/numerals";
import type { ByHand } from "./scopeEdits";

/** What was typed into the fields. */
export interface Adjusted {
  hours: string;
  reason: string;
  discount: string;
  label: string;
}

export type Problems = Partial<Record<keyof Adjusted, string>>;

const HOURS = /^\d{1,2}([.,]\d)?$/;

/**
 * What the fields say as the scope keeps it, or what is wrong with each.
 * @param computed hours as computed: the same hours typed again are no override
 * @param targets the work the hours are for
 */
export function byHand(
  typed: Adjusted,
  computed: number,
  targets: string[],
  exponent: number,
): { set?: ByHand; problems: Problems } {
  const problems: Problems = {};
  const set: ByHand = {};
  const text = typed.hours.trim();
  const tenths = text === "" ? 0 : Math.round(Number(text.replace(",", ".")) * 10) - Math.round(computed * 10);
  if (text !== "" && !HOURS.test(text)) problems.hours = "Hours with at most one decimal, like 2.5.";
  else if (tenths !== 0 && typed.reason.trim() === "")
    problems.reason = "Say why the hours differ from the computed ones.";
  else if (tenths !== 0) set.hours = { by_hours: tenths / 10, reason: typed.reason.trim(), targets };

  if (typed.discount.trim() !== "") {
    const off = cents(typed.discount, exponent);
    if (off === undefined) problems.discount = "An amount, like 15.00, or empty for none.";
    else if (off > 0 && typed.label.trim() === "") problems.label = "Say what the quote calls it.";
    else if (off > 0) set.discount = { cents: off, label: typed.label.trim() };
  }
  return Object.keys(problems).length > 0 ? { problems } : { set, problems };
}
