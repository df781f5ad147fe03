import styled from "styled-components";

/** Figures of the ledger, one to a row: its name, the figure, what is said of it. */
export const Rows = styled.dl`
  margin: 4px 0 20px;
  border-top: 1px solid var(--strong);
  > div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    font-weight: 550;
  }
  dd {
    margin: 0;
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .said {
    grid-column: 1 / -1;
    text-align: left;
    font-size: 13px;
    color: var(--second);
  }
  .left {
    border-top: 2px solid var(--ink);
    align-items: baseline;
  }
  .left dd {
    font-size: 26px;
    font-weight: 650;
  }
`;
