import { css } from "styled-components";

/**
 * A table on the ruled page: quiet heads, a rule under each row, figures at the right.
 * @param right space at the right of a cell, in px
 * @param down space above and below what stands in one, in px
 */
export const ruledTable = (right: number, down: number) => css`
  th {
    font-weight: 400;
    font-size: 13px;
    color: var(--second);
    text-align: left;
    padding: 3px ${right}px 3px 0;
    border-bottom: 1px solid var(--strong);
  }
  td {
    padding: ${down}px ${right}px ${down}px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: baseline;
  }
  td small {
    font-size: 13px;
    color: var(--second);
    display: block;
  }
  .figure {
    text-align: right;
    white-space: nowrap;
  }
  @media (max-width: 760px) {
    .wide {
      display: none;
    }
  }
`;
