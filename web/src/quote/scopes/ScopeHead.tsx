import { memo } from "react";
import styled from "styled-components";
import { Asked, Button, KeyHint, Small } from "../../shared/parts";
import { MAX_SCOPES, type ScopeEdits } from "./scopeEdits";

const Row = styled.div`
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: baseline;
  padding-bottom: 6px;
  strong {
    font-weight: 650;
    overflow-wrap: anywhere;
  }
  > :last-child {
    white-space: nowrap;
  }
`;
const Links = styled(Small)`
  display: grid;
  gap: 3px;
  justify-items: start;
`;
const Turns = styled.span`
  display: inline-flex;
  gap: 6px;
  button {
    min-height: 32px;
    padding: 3px 9px;
    font-size: 13px;
  }
`;

interface Props {
  title: string;
  index: number;
  count: number;
  writes: boolean;
  edits: ScopeEdits;
  /** Whether the scopes stand side by side, and the way there and back. */
  beside: boolean;
  onBeside: () => void;
}

/** Which scope the balance is of, and the way to the others. */
export const ScopeHead = memo(function ScopeHead({ title, index, count, writes, edits, beside, onBeside }: Props) {
  return (
    <>
      <Row>
        <strong>{title}</strong>
        {count > 1 ? (
          <Small>
            {index + 1} of {count}
          </Small>
        ) : (
          <Button onPress={edits.another} isDisabled={!writes}>
            Another scope <KeyHint>N</KeyHint>
          </Button>
        )}
      </Row>
      {count > 1 && (
        <Row>
          <Links>
            <Asked onPress={onBeside}>
              {beside ? "the drawing" : "side by side"} <KeyHint>=</KeyHint>
            </Asked>
            {count < MAX_SCOPES && (
              <Asked onPress={edits.another} isDisabled={!writes}>
                another scope <KeyHint>N</KeyHint>
              </Asked>
            )}
          </Links>
          <Turns>
            <Button onPress={() => edits.turn(1)}>
              Next <KeyHint>]</KeyHint>
            </Button>
            <Button onPress={edits.drop} isDisabled={!writes}>
              Drop <KeyHint>D</KeyHint>
            </Button>
          </Turns>
        </Row>
      )}
    </>
  );
});
