import { Checkbox, TextArea, TextField, Label } from "react-aria-components";
import styled from "styled-components";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { fieldStyles } from "../shared/fields/fieldStyles";
import { LiveNumber } from "../shared/fields/LiveNumber";
import { Button, Small } from "../shared/parts";
import { Answers } from "./Answers";
import { at, type Path, pointer } from "./edits";
import { Entries } from "./Entries";
import type { FieldSpec } from "./fields";
import { Json } from "./Json";
import type { EngineDraft } from "./useEngineDraft";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px 14px;
  align-items: start;
  > .wide {
    grid-column: 1 / -1;
  }
`;
const Group = styled.fieldset`
  grid-column: 1 / -1;
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0;
  padding: 6px 0 2px;
  min-width: 0;
  > legend {
    font-size: 13px;
    color: var(--second);
    padding: 0 8px 0 0;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 8px;
    align-items: start;
    padding: 6px 0;
  }
`;
const Flag = styled(Checkbox)`
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 38px;
  padding-top: 18px;
  cursor: pointer;
  &::before {
    content: "";
    width: 18px;
    height: 18px;
    border: 1.4px solid var(--ink);
    border-radius: 4px;
    background: var(--sheet);
  }
  &[data-selected]::before {
    background: var(--ink);
    box-shadow: inset 0 0 0 3px var(--sheet);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--mark);
    outline-offset: 2px;
  }
`;
const Points = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 4px;
  grid-column: span 2;
  > small {
    grid-column: 1 / -1;
    color: var(--second);
    font-size: 13px;
  }
`;
const Lines = styled(TextField)`
  ${fieldStyles}
  grid-column: 1 / -1;
  textarea {
    width: 100%;
    min-height: 58px;
    padding: 7px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    color: var(--ink);
    font: inherit;
    resize: vertical;
  }
`;

interface Props {
  draft: EngineDraft;
  /** What the fields are of. */
  path: Path;
  fields: FieldSpec[];
}

/** Fields of one thing of a profile, as fields.ts says; each tells its own fault. */
export function Fields({ draft, path, fields }: Props) {
  return (
    <Grid>
      {fields.map((field) => (
        <OneField key={field.key} draft={draft} path={[...path, field.key]} field={field} />
      ))}
    </Grid>
  );
}

interface OneProps {
  draft: EngineDraft;
  path: Path;
  field: FieldSpec;
}

function OneField({ draft, path, field }: OneProps) {
  const value = at(draft.profile, path);
  const { label, help } = field;
  const problem = problemAt(draft, path);
  const set = (next: unknown) => draft.type(path, next);
  switch (field.kind) {
    case "text":
      return (
        <Field
          label={label}
          value={String(value ?? "")}
          onChange={(text) => set(text === "" ? undefined : text)}
          help={help}
          problem={problem}
        />
      );
    case "lines":
      return <LinesField label={label} value={value} problem={problem} onValue={set} isOne={field.key === "notes"} />;
    case "ids":
      return (
        <Field
          label={label}
          value={((value as string[] | undefined) ?? []).join(", ")}
          onChange={(text) => set(text === "" ? undefined : text.split(/,\s*/))}
          help={help}
          problem={problem}
        />
      );
    case "number":
    case "cylinder":
      return (
        <LiveNumber
          label={label}
          value={typeof value === "number" ? value : null}
          onValue={(next) => set(next ?? undefined)}
          help={help}
          problem={problem}
        />
      );
    case "flag":
      return (
        <Flag isSelected={value === undefined ? field.key === "wrench_fits" : value === true} onChange={set}>
          {label}
        </Flag>
      );
    case "choice":
      return (
        <Choice
          label={label}
          value={value === undefined ? null : String(value)}
          options={field.words}
          onPick={(id) => set(field.numeric ? Number(id) : id)}
          problem={problem}
          placeholder="not said"
        />
      );
    case "points":
      return (
        <PointsField
          draft={draft}
          path={path}
          label={label}
          names={["low", "likely", "high"]}
          isOptional={field.key === "without"}
          problem={problem}
        />
      );
    case "pair":
      return (
        <PointsField draft={draft} path={path} label={label} names={["from", "to"]} isOptional problem={problem} />
      );
    case "cylinders":
      return (
        <Field
          label={label}
          value={((value as number[] | undefined) ?? []).join(", ")}
          onChange={(text) => set(numbers(text))}
          help={help}
          problem={problem}
        />
      );
    case "entries":
      return <Entries draft={draft} path={path} label={label} help={help} problem={problem} />;
    case "answers":
      return <Answers draft={draft} path={path} label={label} problem={problem} />;
    case "json":
      return <Json label={label} value={value} onValue={set} problem={problem} />;
    case "loose-parts":
      return (
        <Field
          label={label}
          value={looseParts(value)}
          onChange={(text) => set(partsOf(text))}
          help="numbers, with commas; 2 × for two"
          problem={problem}
        />
      );
    case "object":
      return (
        <Group>
          <legend>{label}</legend>
          <Fields draft={draft} path={path} fields={field.fields} />
        </Group>
      );
    case "rows":
      return <RowsField draft={draft} path={path} field={field} />;
  }
}

/** The first fault of a place, or of what lies in it where it has no fields of its own. */
function problemAt(draft: EngineDraft, path: Path): string | undefined {
  const where = pointer(path);
  return draft.look.faults.find((fault) => fault.path === where)?.message;
}

const numbers = (text: string) => {
  const list = text.split(/[^0-9]+/).filter(Boolean);
  return list.length === 0 ? undefined : list.map(Number);
};

type LoosePart = string | { part: string; quantity: number };

const looseParts = (value: unknown) =>
  ((value as LoosePart[] | undefined) ?? [])
    .map((one) => (typeof one === "string" ? one : `${one.quantity} × ${one.part}`))
    .join(", ");

function partsOf(text: string): LoosePart[] | undefined {
  if (text === "") return undefined;
  return text.split(/,\s*/).map((one) => {
    const [, quantity, part] = /^(\d+) × (.+)$/.exec(one) ?? [];
    return part ? { part, quantity: Number(quantity) } : one;
  });
}

interface PointsProps {
  draft: EngineDraft;
  path: Path;
  label: string;
  names: string[];
  /** Whether it may be left out: with nothing in it, it is. */
  isOptional: boolean;
  problem?: string;
}

function PointsField({ draft, path, label, names, isOptional, problem }: PointsProps) {
  const value = at(draft.profile, path) as (number | null)[] | undefined;
  const set = (i: number, next: number | null) => {
    const list = names.map((_, j) => (j === i ? next : (value?.[j] ?? (value ? null : next))));
    draft.type(path, isOptional && list.every((one) => one === null) ? undefined : list);
  };
  return (
    <Points role="group" aria-label={label}>
      <small aria-hidden="true">{label}</small>
      {names.map((name, i) => (
        <LiveNumber
          key={name}
          bare
          label={`${label}, ${name}`}
          value={value?.[i] ?? null}
          onValue={(next) => set(i, next)}
          problem={i === 0 ? problem : undefined}
        />
      ))}
    </Points>
  );
}

interface LinesProps {
  label: string;
  value: unknown;
  /** One text over several lines, not a list of them. */
  isOne: boolean;
  problem?: string;
  onValue: (value: unknown) => void;
}

function LinesField({ label, value, isOne, problem, onValue }: LinesProps) {
  const text = isOne ? String(value ?? "") : ((value as string[] | undefined) ?? []).join("\n");
  const take = (next: string) => onValue(isOne ? next : next === "" ? undefined : next.split("\n"));
  return (
    <Lines value={text} onChange={take} isInvalid={Boolean(problem)} validationBehavior="aria">
      <Label>{label}</Label>
      <TextArea />
      {problem && <span className="problem">{problem}</span>}
    </Lines>
  );
}

function RowsField({ draft, path, field }: OneProps & { field: Extract<FieldSpec, { kind: "rows" }> }) {
  const rows = (at(draft.profile, path) as unknown[] | undefined) ?? [];
  return (
    <Group>
      <legend>{field.label}</legend>
      {problemAt(draft, path) && <Small className="problem">{problemAt(draft, path)}</Small>}
      {rows.map((_, i) => (
        <div className="row" key={i}>
          <Fields draft={draft} path={[...path, i]} fields={field.fields} />
          <Button
            aria-label={`Take out ${field.one} ${i + 1}`}
            onPress={() => draft.type(rows.length === 1 && !field.isNeeded ? path : [...path, i], undefined)}
          >
            ✕
          </Button>
        </div>
      ))}
      <Button onPress={() => draft.type([...path, rows.length], field.fresh)}>Another {field.one}</Button>
    </Group>
  );
}
