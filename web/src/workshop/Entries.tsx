import styled from "styled-components";
import { Choice } from "../shared/fields/Choice";
import { Button, Small } from "../shared/parts";
import { at, type Path } from "./edits";
import type { EngineDraft } from "./useEngineDraft";

const Box = styled.div`
  grid-column: 1 / -1;
  display: grid;
  gap: 4px;
  .entry-row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  .name {
    min-width: 180px;
  }
`;

type Entry = string | { any: string[] };

interface Props {
  draft: EngineDraft;
  path: Path;
  label: string;
  help?: string;
  problem?: string;
}

/** Steps that come off before, each alone or as a choice of which one is enough. */
export function Entries({ draft, path, label, help, problem }: Props) {
  const list = (at(draft.profile, path) as Entry[] | undefined) ?? [];
  const steps = draft.profile.steps.map((step) => ({ id: step.id, text: step.label }));
  const name = (id: string) => steps.find((step) => step.id === id)?.text ?? id;
  const members = (entry: Entry) => (typeof entry === "string" ? [entry] : entry.any);
  const set = (next: Entry[]) => draft.type(path, next.length === 0 ? undefined : next);
  const used = list.flatMap(members);
  const free = steps.filter((step) => !used.includes(step.id));
  const or = (i: number, id: string) =>
    set(list.map((entry, j) => (j === i ? { any: [...members(entry), id] } : entry)));
  return (
    <Box role="group" aria-label={label}>
      <Small>
        {label}
        {help && `: ${help}`}
      </Small>
      {list.map((entry, i) => (
        <div className="entry-row" key={members(entry).join()}>
          <span className="name">{members(entry).map(name).join(" or ")}</span>
          <Choice
            bare
            label={`Or another than ${name(members(entry)[0] ?? "")}`}
            value={null}
            options={free}
            onPick={(id) => or(i, id)}
            placeholder="or…"
          />
          <Button
            aria-label={`Take out ${members(entry).map(name).join(" or ")}`}
            onPress={() => set(list.filter((_, j) => j !== i))}
          >
            ✕
          </Button>
        </div>
      ))}
      <Choice
        bare
        label={`${label}: add`}
        value={null}
        options={free}
        onPick={(id) => set([...list, id])}
        placeholder="add a step"
        problem={problem}
      />
    </Box>
  );
}
