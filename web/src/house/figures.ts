/** How a figure may look: the part of JSON Schema the house settings use, as the server declares them. */
export interface Schema {
  type?: string;
  "x-unit"?: Unit;
  enum?: string[];
  properties?: Record<string, Schema>;
  items?: Schema;
  anyOf?: Schema[];
  minItems?: number;
  maxItems?: number;
  maxLength?: number;
  pattern?: string;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
}

/** What a number counts, as it is written beside it. */
export const UNITS: Record<Exclude<Unit, "cents">, string> = {
  share: "%",
  percent: "%",
  factor: "×",
  minutes: "min",
  hours: "h",
  years: "years",
  plugs: "plugs",
  days: "days",
  months: "months",
  km: "km",
  "N·m": "N·m",
  turns: "turns",
};

export type Unit =
  | "share"
  | "factor"
  | "minutes"
  | "hours"
  | "days"
  | "months"
  | "years"
  | "cents"
  | "percent"
  | "plugs"
  | "km"
  | "N·m"
  | "turns";

/**
 * A figure as it is being entered: a number in the unit it is entered in, null where nothing is. A closed day is two
 * empty times.
 */
export type Draft = string | number | boolean | null | Draft[] | { [key: string]: Draft };

/** Writes a number as the shop does. */
export type Written = (value: number) => string;

const isEmpty = (draft: Draft) => draft === "" || draft === null;

export type Faults = Record<string, string>;

export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const isNumber = (schema: Schema) => schema.type === "number" || schema.type === "integer";

/** The schema of what stands there when it is not null. */
export const inner = (schema: Schema): Schema => schema.anyOf?.find((one) => one.type !== "null") ?? schema;

/** Whether nothing may stand there: "no limit", "closed". */
export const isOptional = (schema: Schema): boolean => schema.anyOf?.some((one) => one.type === "null") ?? false;

/** The words that may stand where a number may: "stated" or "halved" in place of a factor. */
export const wordsOf = (schema: Schema): string[] => schema.anyOf?.find((one) => one.enum)?.enum ?? [];

/** A number in the unit it is entered in: shares in percent, money in the large unit; 0.07 is entered as 7. */
export function inUnit(value: number, unit: Unit | undefined, exponent: number): number {
  if (unit === "cents") return value / 10 ** exponent;
  return unit === "share" ? Number((value * 100).toPrecision(12)) : value;
}

/** The way back. */
function outOfUnit(value: number, unit: Unit | undefined, exponent: number): number {
  if (unit === "cents") return Math.round(value * 10 ** exponent);
  return unit === "share" ? Number((value / 100).toPrecision(12)) : value;
}

/** @param value a figure as the server holds it @returns the same for typing in */
export function drafted(value: unknown, schema: Schema, exponent: number): Draft {
  if (value === null || value === undefined) return blank(inner(schema));
  if (typeof value === "number") return inUnit(value, inner(schema)["x-unit"], exponent);
  if (Array.isArray(value)) return value.map((item) => drafted(item, inner(schema).items ?? {}, exponent));
  if (isRecord(value))
    return Object.fromEntries(
      Object.entries(value).map(([key, item]) => [key, drafted(item, inner(schema).properties?.[key] ?? {}, exponent)]),
    );
  return value as string | boolean;
}

/** A figure before anything is typed. */
export function blank(schema: Schema): Draft {
  if (schema.properties)
    return Object.fromEntries(Object.entries(schema.properties).map(([key, one]) => [key, blank(inner(one))]));
  if (isNumber(schema)) return null;
  if (schema.type === "array") {
    const one = isNumber(inner(schema.items ?? {})) ? null : "";
    return Array.from({ length: schema.minItems ?? 0 }, () => one);
  }
  return schema.enum?.[0] ?? (schema.type === "boolean" ? false : "");
}

/** What is wrong with a number by its schema, in the unit it is typed in. */
function outside(value: number | undefined, schema: Schema, exponent: number, written: Written): string | undefined {
  const say = (limit: number) => written(inUnit(limit, schema["x-unit"], exponent));
  if (value === undefined) return "Enter a number.";
  if (schema.type === "integer" && !Number.isInteger(value)) return "Enter a whole number.";
  if (schema.maximum !== undefined && value > schema.maximum) return `Not above ${say(schema.maximum)}.`;
  if (schema.minimum !== undefined && value < schema.minimum) return `Not below ${say(schema.minimum)}.`;
  return schema.exclusiveMinimum !== undefined && value <= schema.exclusiveMinimum
    ? `Above ${say(schema.exclusiveMinimum)}.`
    : undefined;
}

/**
 * The figure as the server takes it. What its schema says of numbers is said here already; whether figures fit
 * together, the server says.
 * @returns the value, and what is wrong by path
 */
export function undrafted(
  draft: Draft,
  schema: Schema,
  exponent: number,
  written: Written,
  path = "",
): { value: unknown; faults: Faults } {
  if (isOptional(schema) && (isEmpty(draft) || (Array.isArray(draft) && draft.every(isEmpty))))
    return { value: null, faults: {} };
  if (typeof draft === "string" && wordsOf(schema).includes(draft)) return { value: draft, faults: {} };
  const shape = inner(schema);
  if (isNumber(shape)) {
    const value = typeof draft === "number" ? outOfUnit(draft, shape["x-unit"], exponent) : undefined;
    const fault = outside(value, shape, exponent, written);
    return { value, faults: fault ? { [path]: fault } : {} };
  }
  const parts = Array.isArray(draft)
    ? draft.map((item, index) => [String(index), item, shape.items ?? {}] as const)
    : isRecord(draft)
      ? Object.entries(draft).map(([key, item]) => [key, item as Draft, shape.properties?.[key] ?? {}] as const)
      : undefined;
  if (!parts) return { value: typeof draft === "string" ? draft.trim() : draft, faults: {} };
  const made = parts.map(
    ([key, item, one]) => [key, undrafted(item, one, exponent, written, `${path}/${key}`)] as const,
  );
  const value = Array.isArray(draft)
    ? made.map(([, one]) => one.value)
    : Object.fromEntries(made.map(([key, one]) => [key, one.value]));
  return { value, faults: Object.assign({}, ...made.map(([, one]) => one.faults)) };
}
