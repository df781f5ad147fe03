import { memo } from "react";
import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import type { Scope, Sheet } from "../../api/client";
import { KeyHint } from "../../shared/parts";
import type { ScopeEdits } from "./scopeEdits";
import { WORKS } from "./works";

const Works = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 5px 6px;
  align-items: center;
  margin: 6px 0 8px;
`;
const Chip = styled(ToggleButton)`
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 29px;
  padding: 2px 10px;
  border: 1.4px solid var(--ink);
  border-radius: 15px;
  font-size: 14px;
  background: var(--sheet);
  cursor: pointer;
  color: var(--ink);
  &[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
  &[data-disabled] {
    cursor: default;
  }
`;

interface Props {
  /** What this engine offers; the same for as long as the quote is open. */
  offers: Sheet["offers"];
  works: Scope["works"];
  extras: Scope["extras"];
  writes: boolean;
  edits: ScopeEdits;
}

/** The kinds of work to choose, and what the engine offers beside them. */
export const WorkChips = memo(function WorkChips({ offers, works, extras = [], writes, edits }: Props) {
  return (
    <Works>
      {offers.works.map((name) => {
        const work = name as Scope["works"][number];
        return (
          <Chip
            key={work}
            isSelected={works.includes(work)}
            onChange={() => edits.toggleWork(work)}
            isDisabled={!writes}
          >
            {WORKS[work].label} <KeyHint>{WORKS[work].key.toUpperCase()}</KeyHint>
          </Chip>
        );
      })}
      {offers.extras.map((extra) => (
        <Chip
          key={extra.id}
          isSelected={extras.includes(extra.id)}
          onChange={() => edits.toggleExtra(extra.id)}
          isDisabled={!writes}
        >
          {extra.label}
        </Chip>
      ))}
    </Works>
  );
});
