import styled from "styled-components";
import { scrolls } from "./scrolls";

/** A page of the ledger with its margin: the matter at the left, figures and acts at the right. */
export const Spread = styled.main`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 322px;
  @media (max-width: 1100px) {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
  }
`;

export const Matter = styled.div`
  min-width: 0;
  ${scrolls}
  padding: 18px 22px 30px;
  > header {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    align-items: baseline;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 10px;
    margin-bottom: 14px;
  }
  h1 {
    font-weight: 650;
    line-height: 1.15;
  }
`;

export const Margin = styled.aside`
  border-left: 3px double var(--strong);
  background: var(--sheet);
  padding: 22px 20px 20px;
  ${scrolls}
  display: flex;
  flex-direction: column;
  > .end {
    margin-top: auto;
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
    align-items: center;
    padding-top: 12px;
  }
`;

/** Two columns of the matter, one below the other where it is narrow. */
export const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, var(--left, 1fr)) minmax(0, var(--right, 1fr));
  gap: 10px 28px;
  align-items: start;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
