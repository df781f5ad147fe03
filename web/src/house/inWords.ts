import { inner, isRecord, type Schema, typed, type Unit, UNITS } from "./figures";

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
function withUnit(value: number, unit: Unit | undefined, money: (cents: number) => string): string {
  if (unit === "cents") return money(value);
  const text = typed(value, unit, 0);
  if (!unit) return text;
  return unit === "factor" ? `${UNITS.factor}${NEXT}${text}` : `${text}${NEXT}${UNITS[unit]}`;
}

/** A figure as people read it: money as money, shares in percent, times with slashes, groups with their names. */
export function inWords(value: unknown, schema: Schema, money: (cents: number) => string): string {
  const shape = inner(schema);
  if (value === null || value === undefined) return "none";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return withUnit(value, shape["x-unit"], money);
  if (Array.isArray(value)) return listInWords(value, shape, money);
  if (isRecord(value)) return membersInWords(value, shape, money);
  return spoken(String(value));
}

function listInWords(list: unknown[], schema: Schema, money: (cents: number) => string): string {
  const items = schema.items ?? {};
  if (list.length === 0) return "none";
  if (isRecord(list[0])) return list.map((item) => inWords(item, items, money)).join("; ");
  if (items.type === "string") return list.join(" to ");
  if (items.enum) return list.map((item) => spoken(String(item))).join(" and ");
  return `${list.map((item) => typed(Number(item), items["x-unit"], 0)).join(" / ")}${items["x-unit"] === "minutes" ? " min" : ""}`;
}

function membersInWords(members: Record<string, unknown>, schema: Schema, money: (cents: number) => string): string {
  const named = Object.keys(schema.properties ?? members)
    .map((key) => [key, members[key]] as const)
    .filter(([, item]) => item !== false && item !== undefined);
  return named
    .map(([key, item]) => {
      if (item === null) return key === "up_to_cents" ? "above" : `${spoken(key)} closed`;
      return item === true
        ? spoken(key)
        : `${spoken(key)}${isRecord(item) ? ":" : ""} ${inWords(item, schema.properties?.[key] ?? {}, money)}`.trim();
    })
    .join("up_to_cents" in members ? " " : named.some(([, item]) => isRecord(item)) ? "; " : ", ");
}
