import { memo, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { Button, KeyHint, Unseen } from "../shared/parts";

const Below = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 10px 0 14px;
  input {
    min-height: 36px;
    width: 210px;
    padding: 5px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 6px;
    background: var(--sheet);
    color: var(--ink);
  }
`;

interface Props {
  onAdd: (label: string) => void;
  onFork: () => void;
  canFork: boolean;
  onUndo: () => void;
  onRedo: () => void;
  canUndo: boolean;
  canRedo: boolean;
  /** Set by the key for another layer. */
  focusName: number;
}

/** Below the layers: another one, one instead of another, and the way back. */
export const MoreLayers = memo(function MoreLayers(props: Props) {
  const { onAdd, onFork, canFork, onUndo, onRedo, canUndo, canRedo, focusName } = props;
  const [name, setName] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (focusName > 0) field.current?.focus();
  }, [focusName]);
  return (
    <Below
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === "") return;
        onAdd(name.trim());
        setName("");
      }}
    >
      <label>
        <Unseen>Name of another layer</Unseen>
        <input
          ref={field}
          placeholder="Upper manifold"
          value={name}
          maxLength={400}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit" isDisabled={name.trim() === ""}>
        Another layer <KeyHint>L</KeyHint>
      </Button>
      <Button onPress={onFork} isDisabled={!canFork}>
        Fork <KeyHint>F</KeyHint>
      </Button>
      <Button onPress={onUndo} isDisabled={!canUndo}>
        Undo <KeyHint>Z</KeyHint>
      </Button>
      <Button onPress={onRedo} isDisabled={!canRedo}>
        Redo <KeyHint>Y</KeyHint>
      </Button>
    </Below>
  );
});
