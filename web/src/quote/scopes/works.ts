import type { Content, Scope } from "../../api/client";
import { type Formatter, list } from "../../shared/format";

type Work = Scope["works"][number];

/**
 * The trade's words for kinds of work, and the key of each. Keys that choose work are letters; digits choose
 * cylinders.
 */
export const WORKS: Record<Work, { label: string; key: string }> = {
  plug: { label: "Plug", key: "p" },
  coil: { label: "Coil", key: "c" },
  boot: { label: "Boot", key: "b" },
  wire: { label: "Wire", key: "w" },
  "cap-and-rotor": { label: "Cap and rotor", key: "r" },
  "tube-seal": { label: "Tube seals", key: "t" },
  "cover-gasket": { label: "Cover gasket", key: "g" },
  compression: { label: "Compression", key: "m" },
  look: { label: "Look inside", key: "l" },
  other: { label: "Other", key: "" },
};

/** Changes the scope on the page. */
export function inScope(content: Content, next: (scope: Scope) => Scope): Content {
  return { ...content, scopes: content.scopes.map((scope, i) => (i === content.active ? next(scope) : scope)) };
}

export function activeScope(content: Content): Scope {
  const scope = content.scopes[content.active] ?? content.scopes[0];
  if (!scope) throw new Error("A quote has at least one scope");
  return scope;
}

export function toggled<T>(list: T[], item: T): T[] {
  return list.includes(item) ? list.filter((other) => other !== item) : [...list, item];
}

/** What to say of a scope with nothing to charge for yet: what it lacks, what to choose, and how. */
export interface Lacking {
  told: string;
  choose: string;
  how: string;
}

export function lacking({ cylinders, works }: Pick<Scope, "cylinders" | "works">): Lacking {
  if (cylinders.length === 0)
    return {
      told: "Nothing chosen yet.",
      choose: "Choose a cylinder, or other work",
      how: "Press a cylinder on the drawing or type its number.",
    };
  const numbers = [...cylinders].sort((a, b) => a - b);
  const named = `cylinder${numbers.length === 1 ? "" : "s"} ${list(numbers)}`;
  const how = "Press what is to be done under the drawing or type its letter.";
  if (works.length === 0) return { told: "No work chosen yet.", choose: `Choose the work for ${named}`, how };
  const wanted = list(works.map((work, i) => (i === 0 ? WORKS[work].label : WORKS[work].label.toLowerCase())));
  return { told: `${wanted}: none at ${named}.`, choose: "Choose other work, or another cylinder", how };
}

/** What a version of a quote holds, in a line, for choosing between two. */
export function describe(content: Content | undefined, format: Formatter): string[] {
  return (content?.scopes ?? []).map((scope) => {
    const works = scope.works.map((work) => WORKS[work].label.toLowerCase()).join(" and ") || "no work";
    const cylinders = scope.cylinders.length
      ? `cylinders ${[...scope.cylinders].sort((a, b) => a - b).join(", ")}`
      : "no cylinder chosen";
    const extras = scope.extras?.length ? `, ${scope.extras.join(", ")}` : "";
    const hours = scope.hours ? `, ${byHours(scope.hours.by_hours, format)} by hand` : "";
    const discount = scope.discount ? `, ${scope.discount.label} ${format.signed(-scope.discount.cents)}` : "";
    return `${scope.name || "Scope"}: ${works}, ${cylinders}${extras}${hours}${discount}`;
  });
}

/** "−0.6 h" */
export function byHours(hours: number, format: Formatter): string {
  return `${hours < 0 ? "−" : "+"}${format.hours(Math.abs(hours))} h`;
}
