import { ToggleButton } from "react-aria-components";
import styled from "styled-components";

/** Something that is on or off, among others of its kind; round for a number. */
export const Chip = styled(ToggleButton)<{ $round?: boolean }>`
  min-height: 32px;
  min-width: ${(p) => (p.$round ? "32px" : "0")};
  padding: 2px ${(p) => (p.$round ? "6px" : "12px")};
  border: 1.4px solid var(--ink);
  border-radius: 16px;
  background: var(--sheet);
  color: var(--ink);
  font-size: 14px;
  cursor: pointer;
  &[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--mark);
    outline-offset: 2px;
  }
`;
