import type { Formatter } from "../shared/format";
import { inner, inUnit, isRecord, type Schema, type Unit, UNITS } from "./figures";

/** How the shop writes amounts and numbers. */
export type Words = Pick<Formatter, "money" | "figure">;

const DAYS: Record<string, string> = {
  mon: "Mon",
  tue: "Tue",
  wed: "Wed",
  thu: "Thu",
  fri: "Fri",
  sat: "Sat",
  sun: "Sun",
};
const KEYS: Record<string, string> = { up_to_cents: "up to", factor: "", cents: "", label: "", percent: "" };

/** A space at which no line is broken: a number stays with what it counts. */
const NEXT = "\u00a0";

/** The name of a member as people say it. */
export const spoken = (key: string): string => KEYS[key] ?? DAYS[key] ?? key.replaceAll(/[_-]/g, " ");

/** A number with what it counts: "145.00", "65 %", "× 1.15", "20 min". */
function withUnit(value: number, unit: Unit | undefined, say: Words): string {
  if (unit === "cents") return say.money(value);
  const text = say.figure(inUnit(value, unit, 0));
  if (!unit) return text;
  return unit === "factor" ? `${UNITS.factor}${NEXT}${text}` : `${text}${NEXT}${UNITS[unit]}`;
}

/** A figure as people read it: money as money, shares in percent, times with slashes, groups with their names. */
export function inWords(value: unknown, schema: Schema, say: Words): string {
  const shape = inner(schema);
  if (value === null || value === undefined) return "none";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return withUnit(value, shape["x-unit"], say);
  if (Array.isArray(value)) return listInWords(value, shape, say);
  if (isRecord(value)) return membersInWords(value, shape, say);
  return spoken(String(value));
}

function listInWords(list: unknown[], schema: Schema, say: Words): string {
  const items = schema.items ?? {};
  if (list.length === 0) return "none";
  if (isRecord(list[0])) return list.map((item) => inWords(item, items, say)).join("; ");
  if (items.type === "string") return list.join(" to ");
  if (items.enum) return list.map((item) => spoken(String(item))).join(" and ");
  const figures = list.map((item) => say.figure(inUnit(Number(item), items["x-unit"], 0))).join(" / ");
  return items["x-unit"] === "minutes" ? `${figures} min` : figures;
}

function membersInWords(members: Record<string, unknown>, schema: Schema, say: Words): string {
  const named = Object.keys(schema.properties ?? members)
    .map((key) => [key, members[key]] as const)
    .filter(([, item]) => item !== false && item !== undefined);
  return named
    .map(([key, item]) => {
      if (item === null) return key === "up_to_cents" ? "above" : `${spoken(key)} closed`;
      return item === true
        ? spoken(key)
        : `${spoken(key)}${isRecord(item) ? ":" : ""} ${inWords(item, schema.properties?.[key] ?? {}, say)}`.trim();
    })
    .join("up_to_cents" in members ? " " : named.some(([, item]) => isRecord(item)) ? "; " : ", ");
}
