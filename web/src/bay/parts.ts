import styled from "styled-components";
import { Button } from "../shared/parts";

/** A press for a dirty thumb: 44 px and more. */
export const Press = styled(Button)`
  min-height: 52px;
  padding: 8px 18px;
  font-size: 17px;
  border-radius: 10px;
  justify-content: center;
  white-space: normal;
  &[data-chosen] {
    background: var(--ink);
    color: var(--sheet);
  }
`;

export const Big = styled(Press)`
  min-height: 84px;
  font-size: 21px;
  font-weight: 650;
  border-radius: 12px;
`;

export const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 10px 0;
`;

export const Facts = styled.dl`
  margin: 12px 0 0;
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr);
  gap: 9px 14px;
  font-size: 17px;
  dt {
    color: var(--second);
    font-size: 14px;
    padding-top: 2px;
  }
  dd {
    margin: 0;
  }
`;
