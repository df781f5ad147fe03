import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { ENGINE_FIELDS, type FieldSpec, STEP_FIELDS, TARGET_FIELDS } from "./fields";

interface Schema {
  properties?: Record<string, Schema>;
  items?: Schema;
  anyOf?: Schema[];
  $ref?: string;
}

const contract = JSON.parse(readFileSync("../formats/openapi.json", "utf8")) as {
  components: { schemas: Record<string, Schema> };
};
const engine = contract.components.schemas.EngineProfile as Schema;

/** Edited elsewhere on the page, or not by hand at all. */
const ELSEWHERE: Record<string, string[]> = {
  engine: ["format", "version", "code", "steps", "targets", "origins"],
  steps: ["id", "label", "over"],
  targets: ["id"],
};

const object = (schema: Schema): Schema | undefined =>
  schema.properties ? schema : [schema.items, ...(schema.anyOf ?? [])].map((one) => one && object(one)).find(Boolean);

function missing(schema: Schema, fields: FieldSpec[], elsewhere: string[], path: string): string[] {
  const keys = Object.keys(schema.properties ?? {}).filter((key) => !elsewhere.includes(key));
  return keys.flatMap((key) => {
    const field = fields.find((one) => one.key === key);
    if (!field) return [`${path}/${key}`];
    const inner = object(schema.properties?.[key] ?? {});
    return inner && "fields" in field ? missing(inner, field.fields, [], `${path}/${key}`) : [];
  });
}

describe("what can be edited", () => {
  it("is everything the format can say", () => {
    const step = object(engine.properties?.steps ?? {}) as Schema;
    const target = object(engine.properties?.targets ?? {}) as Schema;
    expect(missing(engine, ENGINE_FIELDS, ELSEWHERE.engine ?? [], "")).toEqual([]);
    expect(missing(step, STEP_FIELDS, ELSEWHERE.steps ?? [], "/steps")).toEqual([]);
    expect(missing(target, TARGET_FIELDS, ELSEWHERE.targets ?? [], "/targets")).toEqual([]);
  });

  it("knows no key the format does not", () => {
    const known = JSON.stringify(engine);
    const keys = (fields: FieldSpec[]): string[] =>
      fields.flatMap((field) => [field.key, ...("fields" in field ? keys(field.fields) : [])]);
    for (const key of keys([...ENGINE_FIELDS, ...STEP_FIELDS, ...TARGET_FIELDS])) expect(known).toContain(`"${key}"`);
  });
});
