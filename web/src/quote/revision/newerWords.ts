import type { NewerEngine } from "../../api/client";
import type { Formatter } from "../../shared/format";

/** What a newer profile would change of one scope, in hours and money. */
export function newerWords(
  { title, hours_before, hours_after, cents_before, cents_after }: NewerEngine["scopes"][number],
  format: Pick<Formatter, "hours" | "moneyWithSign">,
): string {
  const of = (before: number | null, after: number | null, say: (value: number) => string) =>
    [before, after].map((value) => (value === null ? "none" : say(value))).join(" → ");
  if (hours_before === hours_after && cents_before === cents_after) return `${title}: nothing changes`;
  const hours = of(hours_before, hours_after, format.hours);
  return `${title}: ${hours} h, ${of(cents_before, cents_after, format.moneyWithSign)}`;
}
