import { memo } from "react";
import styled from "styled-components";
import { Button, KeyHint } from "../../shared/parts";

const Actions = styled.div`
  display: flex;
  gap: 8px;
  justify-content: space-between;
  padding: 10px 18px 14px;
  border-top: 1px solid var(--rule);
  && button {
    padding: 5px 10px;
    gap: 6px;
  }
`;

interface Props {
  saving: boolean;
  canSave: boolean;
  /** Whether there is a saved revision: it can be offered and printed. */
  saved: boolean;
  onOffer: () => void;
  onSave: () => void;
  onPrint: () => void;
}

/** What is done with the page as a whole. */
export const SaveBar = memo(function SaveBar({ saving, canSave, saved, onSave, onOffer, onPrint }: Props) {
  return (
    <Actions>
      <Button $main onPress={onSave} isDisabled={!canSave}>
        {saving ? "Saving…" : "Save"} <KeyHint>S</KeyHint>
      </Button>
      <Button onPress={onOffer} isDisabled={!saved}>
        The yes <KeyHint>.</KeyHint>
      </Button>
      <Button onPress={onPrint} isDisabled={!saved}>
        Print <KeyHint>V</KeyHint>
      </Button>
    </Actions>
  );
});
