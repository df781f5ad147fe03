import { css } from "styled-components";

/** A part that scrolls by itself: what is placed or hidden within it moves with it, and never makes the page longer. */
export const scrolls = css`
  overflow: auto;
  position: relative;
`;
