import { useEffect } from "react";
import { css } from "styled-components";

/** How long figures may belong to an older choice before it is shown: most answers are there sooner. */
const PATIENCE_MS = 120;

/** The page carries this while its figures are older than that; styles look for it with `[data-older] &`. */
const MARK = "older";

/** Figures that belong to an older choice, while new ones are worked out. */
export const olderFigures = css`
  color: var(--second);
`;

/** Marks the page once its figures have belonged to an older choice for a while: nothing is drawn anew before. */
export function useOlderMark(stale: boolean): void {
  useEffect(() => {
    if (!stale) return undefined;
    const { dataset } = document.documentElement;
    const patience = window.setTimeout(() => (dataset[MARK] = ""), PATIENCE_MS);
    return () => {
      window.clearTimeout(patience);
      delete dataset[MARK];
    };
  }, [stale]);
}
