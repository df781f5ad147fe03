import styled from "styled-components";
import { scrolls } from "../../shared/scrolls";

/**
 * A panel's list: where the window is wide it takes what the column has left and scrolls within it, but never goes
 * under $least; the column itself scrolls only then.
 */
export const PanelScroll = styled.div<{ $least: number }>`
  ${scrolls}
  @media (min-width: 1101px) {
    && {
      flex: 0 1 auto;
    }
    min-height: ${({ $least }) => $least}px;
  }
`;
