import { css } from "styled-components";

/** How long figures may belong to an older choice before it is shown: most answers are there sooner. */
export const PATIENCE = "120ms";

/** Figures that belong to an older choice, while new ones are worked out. */
export const olderFigures = css`
  color: var(--second);
  transition:
    color 0s linear ${PATIENCE},
    border-color 0s linear ${PATIENCE};
`;
