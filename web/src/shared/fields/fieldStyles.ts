import { css } from "styled-components";

/** How every field looks: its name above, what is wrong with it or what helps below. */
export const fieldStyles = css`
  display: grid;
  gap: 3px;
  align-content: start;
  min-width: 0;
  > label,
  > .react-aria-Label {
    font-size: 13px;
    color: var(--second);
  }
  input,
  .entry {
    width: 100%;
    padding: 7px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    color: var(--ink);
    min-height: 38px;
  }
  input[data-invalid],
  &[data-invalid] .entry {
    border-color: var(--mark);
  }
  .problem {
    font-size: 13px;
    color: var(--mark);
  }
  .help {
    font-size: 13px;
    color: var(--second);
  }
`;

/** A field in a table or beside others of its kind: its name is read out, the table's head says it on paper. */
export const bareStyles = css`
  > label,
  > .react-aria-Label {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  input,
  .entry {
    padding: 5px 8px;
    min-height: 32px;
  }
`;
