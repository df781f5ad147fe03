import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { NumberBox } from "../shared/fields/NumberBox";
import { TimeBox } from "../shared/fields/TimeBox";
import { Button, Small, Unseen } from "../shared/parts";
import { blank, type Draft, type Faults, inner, isOptional, type Schema, UNITS, wordsOf } from "./figures";
import { spoken } from "./inWords";

const Group = styled.fieldset<{ $lines?: boolean }>`
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
  display: grid;
  gap: 12px 16px;
  align-items: start;
  grid-template-columns: ${(p) => (p.$lines ? "minmax(0, 1fr)" : "repeat(auto-fill, minmax(118px, 1fr))")};
  > legend {
    padding: 0 0 6px;
    font-weight: 650;
  }
  .broad {
    grid-column: span 2;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 16px;
  align-items: end;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 10px;
  > fieldset {
    flex: 1 1 260px;
  }
`;
const Day = styled.div`
  display: grid;
  grid-template-columns: 44px 130px 130px minmax(0, 1fr);
  gap: 4px 12px;
  align-items: center;
  @media (max-width: 480px) {
    grid-template-columns: 40px minmax(0, 1fr) minmax(0, 1fr);
    small {
      grid-column: 2 / -1;
    }
  }
`;
const Problem = styled.p`
  font-size: 13px;
  color: var(--mark);
  grid-column: 1 / -1;
`;
const Ticks = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  min-height: 38px;
  align-items: center;
  align-content: start;
  > legend {
    font-size: 13px;
    color: var(--second);
    padding: 0 0 3px;
  }
  label {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    min-height: 30px;
  }
  input {
    width: 18px;
    height: 18px;
    accent-color: var(--ink);
  }
`;

const POINTS = ["low", "likely", "high"];
const NAMES: Record<string, string> = {
  up_to_cents: "cost up to",
  cents: "amount",
  factor: "factor",
  label: "called",
  percent: "rate",
};

interface Props {
  schema: Schema;
  draft: Draft;
  label: string;
  path: string;
  faults: Faults;
  onChange: (draft: Draft) => void;
}

/** The fields for one figure, as its schema asks for them: a number, a choice, three times, a row for every bracket. */
export function FigureField(props: Props) {
  const shape = inner(props.schema);
  if (wordsOf(props.schema).length > 0) return <NumberOrWordField {...props} />;
  if (shape.type === "array") return <ListField {...props} schema={shape} />;
  if (shape.type === "object") return <MembersField {...props} schema={shape} />;
  if (shape.enum) return <EnumField {...props} options={shape.enum} />;
  if (shape.type === "boolean")
    return (
      <EnumField
        {...props}
        draft={props.draft ? "yes" : "no"}
        options={["no", "yes"]}
        onChange={(word) => props.onChange(word === "yes")}
      />
    );
  if (shape.type === "number" || shape.type === "integer") return <NumberField {...props} />;
  return <TextField {...props} />;
}

function NumberField({ schema, draft, label, path, faults, onChange }: Props) {
  const { shop } = useSession();
  const shape = inner(schema);
  const counts = shape["x-unit"];
  const money = counts === "cents";
  const unit = money ? shop.currency : counts && UNITS[counts];
  return (
    <NumberBox
      label={unit ? `${label}, ${unit}` : label}
      value={typeof draft === "number" ? draft : null}
      onValue={onChange}
      decimals={money ? shop.currency_exponent : undefined}
      fixed={money}
      problem={faults[path]}
      placeholder={isOptional(schema) ? "no limit" : undefined}
    />
  );
}

const NUMBER = "a number";

/** A number, or one of the words that may stand in its place. */
function NumberOrWordField(props: Props) {
  const { schema, draft, label, onChange } = props;
  const isWord = typeof draft === "string" && draft !== "";
  return (
    <Group>
      <div className="broad">
        <Choice
          label={label}
          value={isWord ? draft : NUMBER}
          options={[NUMBER, ...wordsOf(schema)].map((id) => ({ id, text: spoken(id) }))}
          onPick={(word) => onChange(word === NUMBER ? null : word)}
        />
      </div>
      {!isWord && <NumberField {...props} />}
    </Group>
  );
}

function TextField({ schema, draft, label, path, faults, onChange }: Props) {
  return (
    <Field
      label={label}
      value={String(draft)}
      onChange={onChange}
      problem={faults[path]}
      maxLength={inner(schema).maxLength ?? 20}
    />
  );
}

function EnumField({ draft, label, options, onChange }: Props & { options: string[] }) {
  return (
    <Choice
      label={label}
      value={String(draft)}
      options={options.map((id) => ({ id, text: spoken(id) }))}
      onPick={onChange}
    />
  );
}

function ListField(props: Props) {
  const { schema, draft, label, path, faults, onChange } = props;
  const items = schema.items ?? {};
  const list = draft as Draft[];
  const put = (index: number, item: Draft) => onChange(list.map((one, i) => (i === index ? item : one)));
  if (items.enum) return <TickField {...props} options={items.enum} />;
  if (items.type === "string") return <DayField {...props} />;
  if (schema.maxItems === schema.minItems)
    return (
      <Group>
        {list.map((item, index) => (
          <FigureField
            key={POINTS[index]}
            schema={items}
            draft={item}
            label={POINTS[index] ?? ""}
            path={`${path}/${index}`}
            faults={faults}
            onChange={(next) => put(index, next)}
          />
        ))}
        {faults[path] && <Problem>{faults[path]}</Problem>}
      </Group>
    );
  return (
    <Group $lines>
      {list.length === 0 && <Small>None.</Small>}
      {list.map((item, index) => (
        // Rows have no name of their own, and every field is held by the draft.
        <Row key={index}>
          <FigureField
            schema={items}
            draft={item}
            label={`${label} ${index + 1}`}
            path={`${path}/${index}`}
            faults={faults}
            onChange={(next) => put(index, next)}
          />
          <Button onPress={() => onChange(list.filter((_, i) => i !== index))}>
            Take out<Unseen> row {index + 1}</Unseen>
          </Button>
        </Row>
      ))}
      {faults[path] && <Problem role="alert">{faults[path]}</Problem>}
      {list.length < (schema.maxItems ?? 20) && (
        <p>
          <Button onPress={() => onChange([...list, blank(items)])}>Add a row</Button>
        </p>
      )}
    </Group>
  );
}

function TickField({ draft, label, options, path, faults, onChange }: Props & { options: string[] }) {
  const list = draft as string[];
  return (
    <Ticks>
      <legend>{label}</legend>
      {options.map((option) => (
        <label key={option}>
          <input
            type="checkbox"
            checked={list.includes(option)}
            onChange={(event) =>
              onChange(options.filter((one) => (one === option ? event.target.checked : list.includes(one))))
            }
          />
          {option}
        </label>
      ))}
      {faults[path] && <Problem>{faults[path]}</Problem>}
    </Ticks>
  );
}

/** A day from when to when, or closed. */
function DayField({ draft, label, path, faults, onChange }: Props) {
  const [from = "", to = ""] = draft as string[];
  return (
    <Day role="group" aria-label={label}>
      <span>{label}</span>
      <TimeBox label={`${label} from`} value={from} onTime={(time) => onChange([time, to])} />
      <TimeBox label={`${label} to`} value={to} onTime={(time) => onChange([from, time])} />
      {from || to ? (
        <span>
          <Button onPress={() => onChange(["", ""])}>
            Close<Unseen> {label}</Unseen>
          </Button>
        </span>
      ) : (
        <Small as="small">closed</Small>
      )}
      {[faults[path], faults[`${path}/0`], faults[`${path}/1`]]
        .filter(Boolean)
        .slice(0, 1)
        .map((fault) => (
          <Problem key={fault}>{fault}</Problem>
        ))}
    </Day>
  );
}

function MembersField({ schema, draft, label, path, faults, onChange }: Props) {
  const members = draft as Record<string, Draft>;
  const fields = Object.entries(schema.properties ?? {});
  const lines = fields.some(
    ([, one]) => ["object", "array"].includes(inner(one).type ?? "") && !inner(one).items?.enum,
  );
  return (
    <Group $lines={lines} aria-label={label}>
      {fields.map(([key, one]) => {
        const field = (
          <FigureField
            schema={one}
            draft={members[key] ?? ""}
            label={NAMES[key] ?? spoken(key)}
            path={`${path}/${key}`}
            faults={faults}
            onChange={(next) => onChange({ ...members, [key]: next })}
          />
        );
        if (inner(one).type !== "object")
          return (
            <div key={key} className={inner(one).type === "string" || inner(one).items?.enum ? "broad" : undefined}>
              {field}
            </div>
          );
        return (
          <Group key={key} $lines>
            <legend>{spoken(key)}</legend>
            {field}
          </Group>
        );
      })}
      {faults[path] && <Problem role="alert">{faults[path]}</Problem>}
    </Group>
  );
}
