import type { Ahead } from "../../api/client";
import type { Formatter } from "../../shared/format";

type Row = Ahead["rows"][number];

const chance = (row: Row) => `${Math.round(row.no_comeback * 100)} of 100`;

/** What is recommended and why, and what the cheaper one would have to bring: never without the cheaper one. */
export function ahead(found: Ahead, names: string[], format: Formatter): string {
  const row = (index: number | null) => found.rows.find((one) => one.index === index);
  const name = (one: Row) => names[one.index] ?? `scope ${one.index + 1}`;
  const best = row(found.recommended);
  const cheap = row(found.cheapest_now);
  if (!best || !cheap) return "A part has no price: what comes after cannot be weighed yet.";
  const words = [
    `Over ${found.months} months ${name(best)} comes to least, ${format.money(best.net_cents)} all told; ` +
      `${chance(best)} such cars do not come back.`,
  ];
  if (cheap.index !== best.index) {
    const even = found.break_even_returns;
    words.push(`${name(cheap)} is cheapest now; ${chance(cheap)} do not come back.`);
    if (even !== null)
      words.push(
        `It breaks even at ${format.figure(even, 2)} returns, and ${format.figure(cheap.returns, 2)} are expected.`,
      );
  }
  const also = row(found.also);
  if (also) words.push(`For ${format.money(also.net_cents - best.net_cents)} more, ${name(also)}: ${chance(also)}.`);
  return words.join(" ");
}
