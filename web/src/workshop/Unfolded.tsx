import styled from "styled-components";
import { Button, Heading, Small } from "../shared/parts";
import { originOf } from "./edits";
import { Fields } from "./Fields";
import { ENGINE_FIELDS, STEP_FIELDS, TARGET_FIELDS } from "./fields";
import type { EngineDraft } from "./useEngineDraft";
import { originWords } from "./words";

const Sheet = styled.section`
  border: 1.4px solid var(--ink);
  border-left: 6px double var(--strong);
  background: var(--sheet);
  padding: 12px 16px 16px;
  margin: 4px 0 14px;
`;

/** What is unfolded: a layer or a piece of work, by its id, wherever it is moved to. */
export type Unfold = { list: "steps" | "targets"; id: string };

interface Props {
  draft: EngineDraft;
  what: Unfold;
  onClose: () => void;
}

/** All that can be said of one layer, or of one piece of work. */
export function Unfolded({ draft, what, onClose }: Props) {
  const index = draft.profile[what.list].findIndex((one) => one.id === what.id);
  const row = draft.profile[what.list][index];
  if (!row) return null;
  const title = row.label || row.id;
  const isStep = what.list === "steps";
  const fork = isStep && draft.forks.some((members) => members.includes(row.id));
  const origin = originOf(draft.profile, [what.list, index, isStep ? "remove" : "minutes"]);
  return (
    <Sheet aria-label={`All of ${title}`}>
      <Heading>
        <span>{title}</span>
        <Button onPress={onClose}>Fold up</Button>
      </Heading>
      <Small as="p">Its minutes: {originWords(origin)}.</Small>
      <Fields draft={draft} path={[what.list, index]} fields={isStep ? STEP_FIELDS : TARGET_FIELDS} />
      <p style={{ marginTop: 12, display: "flex", gap: 8, flexWrap: "wrap" }}>
        {fork && <Button onPress={() => draft.act({ do: "join", step: row.id })}>No longer an alternative</Button>}
        <Button
          onPress={() => {
            onClose();
            if (isStep) draft.act({ do: "drop", step: row.id });
            else draft.type([what.list, index], undefined);
          }}
        >
          {isStep ? "Take this layer out" : "Take this work out"}
        </Button>
      </p>
    </Sheet>
  );
}

/** All that can be said of the engine itself. */
export function TheEngine({ draft }: { draft: EngineDraft }) {
  return <Fields draft={draft} path={[]} fields={ENGINE_FIELDS} />;
}
