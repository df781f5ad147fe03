import { type KeyboardEvent, useEffect, useRef } from "react";
import styled from "styled-components";
import { useKeys } from "./keys";
import { KeyHint } from "./parts";

const Box = styled.label`
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 18px 0 20px;
  border: 1.6px solid var(--ink);
  border-radius: 6px;
  background: var(--sheet);
  padding: 0 12px;
  input {
    flex: 1;
    border: 0;
    background: none;
    padding: 11px 0;
    font-size: 17px;
    min-width: 0;
  }
  input:focus {
    outline: none;
  }
  &:focus-within {
    outline: 3px solid var(--mark);
    outline-offset: 2px;
  }
`;

interface Props {
  value: string;
  onText: (text: string) => void;
  placeholder: string;
  label: string;
  /** What the key list calls going to the field. */
  told: string;
  autoFocus?: boolean;
  onEnter?: () => void;
}

/**
 * The one search field of a page, reached with a slash; a slash typed into it is that key again and never part of the
 * words.
 */
export function Search({ value, onText, placeholder, label, told, autoFocus, onEnter }: Props) {
  const field = useRef<HTMLInputElement>(null);
  useKeys([{ key: "/", hint: "/", label: told, run: () => field.current?.focus() }]);
  useEffect(() => {
    if (autoFocus) field.current?.focus();
  }, [autoFocus]);
  const press = (event: KeyboardEvent) => {
    if (event.key === "Enter") onEnter?.();
    if (event.key === "Escape") field.current?.blur();
    if (event.key === "/") event.preventDefault();
  };
  return (
    <Box>
      <input
        ref={field}
        value={value}
        onChange={(event) => onText(event.target.value)}
        onKeyDown={press}
        placeholder={placeholder}
        aria-label={label}
      />
      <KeyHint>/</KeyHint>
    </Box>
  );
}
