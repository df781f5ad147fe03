import styled from "styled-components";

/** Rows of the Counter: a plate, who and what in sentences, one act. */
export const NeedRows = styled.ul`
  list-style: none;
  margin: 4px 0 22px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr) auto;
    gap: 0 14px;
    align-items: center;
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
    min-height: 58px;
  }
  li[data-drawn] {
    grid-template-columns: 92px minmax(0, 1fr) 150px auto;
  }
  strong {
    font-weight: 650;
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--second);
    overflow-wrap: anywhere;
  }
  @media (max-width: 600px) {
    li,
    li[data-drawn] {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > :first-child,
    li > svg {
      grid-column: 1 / -1;
    }
  }
`;

/** Rows that are pressed as a whole. */
export const PressRows = styled.ul`
  list-style: none;
  margin: 6px 0 22px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    border-bottom: 1px solid var(--rule);
  }
  > li > button {
    width: 100%;
    text-align: left;
    border: 0;
    background: none;
    cursor: pointer;
    padding: 9px 8px;
    display: grid;
    gap: 0 14px;
    align-items: baseline;
    grid-template-columns: 106px minmax(0, 1fr) auto;
  }
  li[data-acts] {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
  }
  li[data-away] > button {
    color: var(--second);
    text-decoration: line-through;
  }
  .acts {
    display: grid;
    justify-items: end;
    gap: 2px;
    padding-left: 12px;
    min-width: 76px;
    line-height: 24px;
  }
  .acts button {
    width: auto;
    padding: 0;
    display: inline;
    min-height: 24px;
  }
  button:disabled {
    cursor: default;
  }
  > li > button:enabled:hover,
  > li[data-first] > button {
    background: var(--sheet);
  }
  .figure {
    text-align: right;
    font-weight: 650;
  }
  .sub {
    grid-column: 2 / -1;
  }
  .clip {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** Two columns that become one where there is no room. */
export const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 40px;
  margin-top: 14px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
`;
