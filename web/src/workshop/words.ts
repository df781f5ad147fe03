import type { WorkshopLook } from "../api/client";
import { list } from "../shared/format";
import type { Origin } from "./edits";

type Try = WorkshopLook["tries"][number];

/** What a test price is of. */
export function triedWords({ what, cylinders }: Pick<Try, "what" | "cylinders">): string {
  switch (what) {
    case "easiest-plug":
      return `Plug ${list(cylinders)}`;
    case "deepest":
      return `Plug and coil ${list(cylinders)}`;
    case "deepest-bank":
      return `Plugs ${list(cylinders)}`;
    case "all-plugs":
      return "All plugs";
    case "all":
      return "All plugs and coils";
  }
}

const FROM: [string, (n: number) => string][] = [
  ["learned", (n) => `${n} learned from jobs`],
  ["typed", (n) => `${n} typed`],
  ["kind", (n) => `${n} spread from one figure`],
  ["pattern", (n) => `${n} from the pattern`],
];

/** Where the figures come from, those there are. */
export function standsOn(origins: Record<string, number> | null): string[] {
  return FROM.filter(([from]) => (origins?.[from] ?? 0) > 0).map(([from, say]) => say(origins?.[from] ?? 0));
}

/** Where one figure comes from. */
export function originWords({ from, jobs }: Origin): string {
  switch (from) {
    case "learned":
      return `learned from ${jobs ?? 1} ${jobs === 1 ? "job" : "jobs"}`;
    case "kind":
      return "low and high with the spread of its kind: nobody has timed it";
    case "pattern":
      return "from the pattern: nobody has timed it";
    default:
      return "typed here";
  }
}

/** What is still to be known. */
export function openWords({ code, of }: WorkshopLook["open"][number]): string {
  switch (code) {
    case "no-price":
      return of.startsWith("part: ") ? `No part number: ${of.slice(6)}` : `${of} has no price`;
    case "no-plug-part":
      return "The plug has no part number";
    case "no-torque":
      return "The plug has no torque";
    default:
      return "Plug torque: dry, or with compound?";
  }
}

const FIGURE: Record<string, string> = { remove: "off", refit: "on", minutes: "work" };

/** A figure unlike the others of its kind. */
export function unlikeWords(
  row: WorkshopLook["unlike"][number],
  name: (path: string) => string,
  say: (n: number) => string,
): string {
  const [, , , key = ""] = row.path.split("/");
  const others = `the ${row.count} others like it take ${say(row.low)} to ${say(row.high)}`;
  return `${name(row.path)} ${FIGURE[key]} in ${say(row.minutes)} min: ${others}.`;
}
