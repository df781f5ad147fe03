import styled from "styled-components";
import { Field } from "../shared/fields/Field";
import { Small } from "../shared/parts";
import { at, type Path } from "./edits";
import type { EngineDraft } from "./useEngineDraft";

const Box = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 4px 14px;
  > :first-child {
    grid-column: 1 / -1;
  }
`;

interface Props {
  draft: EngineDraft;
  path: Path;
  label: string;
  problem?: string;
}

/** Under which answers to the engine's questions a step exists. */
export function Answers({ draft, path, label, problem }: Props) {
  const variants = draft.profile.variants ?? [];
  const value = (at(draft.profile, path) as Record<string, string[]> | undefined) ?? {};
  const set = (id: string, text: string) => {
    const next = { ...value };
    if (text === "") delete next[id];
    else next[id] = text.split(/,\s*/);
    draft.type(path, Object.keys(next).length === 0 ? undefined : next);
  };
  return (
    <Box role="group" aria-label={label}>
      <Small>
        {label}
        {variants.length === 0 && ": the engine asks nothing yet"}
      </Small>
      {variants.map((variant) => (
        <Field
          key={variant.id}
          label={variant.ask}
          value={(value[variant.id] ?? []).join(", ")}
          onChange={(text) => set(variant.id, text)}
          help={variant.options.map((option) => option.id).join(", ")}
          problem={problem}
        />
      ))}
    </Box>
  );
}
