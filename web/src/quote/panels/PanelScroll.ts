import styled from "styled-components";

// The strip of questions above the columns, where an engine has any.
const QUESTIONS = 36;

/**
 * A panel's list scrolls where the window is wide: $around is the height of all above and below it, $least what it
 * never goes under.
 */
export const PanelScroll = styled.div<{ $around: number; $least: number }>`
  overflow: auto;
  @media (min-width: 1101px) {
    max-height: max(${({ $least }) => $least}px, calc(100vh - ${({ $around }) => $around}px));
    main:has([data-questions]) & {
      max-height: max(${({ $least }) => $least - QUESTIONS}px, calc(100vh - ${({ $around }) => $around + QUESTIONS}px));
    }
  }
`;
