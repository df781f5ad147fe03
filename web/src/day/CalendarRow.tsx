import styled from "styled-components";

/** One row of the calendar's lists: its name at the left, what is said of it beside. */
export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
  border-bottom: 1px solid var(--rule);
  padding: 10px 0;
  .name {
    flex: 1 1 140px;
    align-self: center;
  }
`;
