import styled from "styled-components";
import type { CardPiece } from "../api/client";
import { Heading, Small } from "../shared/parts";
import { title } from "./words";

const Next = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    justify-content: space-between;
    gap: 14px;
    border-bottom: 1px solid var(--rule);
    padding: 9px 0;
    font-size: 17px;
  }
`;

/** What comes after the piece in hand. */
export function Coming({ pieces }: { pieces: CardPiece[] }) {
  if (pieces.length === 0) return null;
  return (
    <>
      <Heading style={{ marginTop: 14 }}>Next</Heading>
      <Next>
        {pieces.map((piece) => (
          <li key={piece.id}>
            <span>{title(piece)}</span>
            <Small>{bolts(piece)}</Small>
          </li>
        ))}
      </Next>
    </>
  );
}

const bolts = (piece: CardPiece) => {
  const count = (piece.fasteners ?? []).reduce((sum, one) => sum + one.count, 0);
  return count > 0 ? `${count} bolt${count === 1 ? "" : "s"}` : "";
};
