import { css } from "styled-components";

/** The list a choice opens. */
export const listStyles = css`
  min-width: var(--trigger-width);
  max-width: min(560px, 94vw);
  max-height: 320px;
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 4px 0;
  box-shadow: 0 6px 18px rgb(0 0 0 / 18%);
  [role="option"] {
    padding: 6px 12px;
    cursor: pointer;
    outline: none;
  }
  [role="option"][data-selected] {
    font-weight: 650;
  }
  [role="option"][data-focused] {
    background: var(--ink);
    color: var(--sheet);
  }
  [role="option"] small {
    display: block;
    font-size: 13px;
    color: var(--second);
  }
  [role="option"][data-focused] small {
    color: inherit;
  }
`;
