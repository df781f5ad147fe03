import { css } from "styled-components";

/** The parts of a date or a time, each typed by itself. */
export const segmentStyles = css`
  .entry {
    display: inline-flex;
    align-items: center;
    padding-block: 5px;
    white-space: nowrap;
    overflow: hidden;
  }
  [role="spinbutton"] {
    display: inline-grid;
    place-items: center;
    min-width: 24px;
    min-height: 24px;
    border-radius: 3px;
    font-variant-numeric: tabular-nums;
  }
  [role="spinbutton"][data-placeholder] {
    color: var(--second);
  }
  [role="spinbutton"]:focus {
    background: var(--ink);
    color: var(--sheet);
    outline: none;
  }
`;
