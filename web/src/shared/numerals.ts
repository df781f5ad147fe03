const NUMERAL = /^([1-9]\d{0,2}(?:[ ,]\d{3})+|\d+)(?:[.,](\d+))?$/;

/** A number as people type it: "1,234.5", "1 234" and "9,5" alike; undefined when it is none. */
export function numeral(text: string): { number: number; decimals: number } | undefined {
  const found = NUMERAL.exec(text.trim());
  if (!found) return undefined;
  return { number: Number(`${found[1]?.replaceAll(/[ ,]/g, "")}.${found[2] ?? "0"}`), decimals: found[2]?.length ?? 0 };
}

/** An amount as it is typed, without thousands or sign: what `cents` reads back in every locale. */
export const amount = (cents: number, exponent: number): string => (cents / 10 ** exponent).toFixed(exponent);

/** An amount of money in the currency's smallest unit; undefined when it is none, or has more decimals than the currency. */
export function cents(text: string, exponent: number): number | undefined {
  const found = numeral(text);
  return found && found.decimals <= exponent ? Math.round(found.number * 10 ** exponent) : undefined;
}
