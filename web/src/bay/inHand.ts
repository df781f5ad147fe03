import type { CardPiece, CardSheet, CardState } from "../api/client";
import { plugKey } from "./fold";

/** What of a plug's work is next: its well, out, read, the new one checked, in. */
export type PlugStep = "well" | "out" | "read" | "new" | "in";

export interface InHand {
  piece: CardPiece;
  /** Place among all pieces, from 1. */
  number: number;
  plug?: { key: string; nth: number; step: PlugStep };
}

/** The first piece that is not done and not left; a wait that has begun lets the next one be in hand meanwhile. */
export function inHand(sheet: CardSheet, state: CardState, meanwhile = false): InHand | null {
  const index = sheet.pieces.findIndex(
    (piece) => isOpen(piece, state) && !(meanwhile && piece.waiting && piece.id in state.waiting),
  );
  const piece = sheet.pieces[index];
  if (!piece) return null;
  return { piece, number: index + 1, plug: piece.plug ? plugInHand(piece, state) : undefined };
}

function plugInHand(piece: CardPiece, state: CardState): InHand["plug"] {
  const count = piece.plug?.count ?? 1;
  for (let nth = 1; nth <= count; nth += 1) {
    const key = plugKey(piece.ref ?? "", nth);
    const step = nextOf(state.plugs[key]);
    if (step) return { key, nth, step };
  }
  return { key: plugKey(piece.ref ?? "", count), nth: count, step: "in" };
}

function nextOf(plug: CardState["plugs"][string] | undefined): PlugStep | null {
  if (!plug?.well) return "well";
  if (!plug.out) return "out";
  if (!plug.read) return "read";
  if (!plug.new) return "new";
  return plug.in ? null : "in";
}

/** The next three pieces after the one in hand that are still to do. */
export const coming = (sheet: CardSheet, state: CardState, hand: InHand): CardPiece[] =>
  sheet.pieces
    .slice(hand.number)
    .filter((piece) => isOpen(piece, state))
    .slice(0, 3);

const isOpen = (piece: CardPiece, state: CardState) => !(piece.id in state.done) && !(piece.id in state.left);

/** Ticks of a piece that are not made yet. */
export const openTicks = (piece: CardPiece, state: CardState) =>
  (piece.ticks ?? []).filter((tick) => !(state.ticks[piece.id] ?? []).includes(tick.item));
