import type { CardPiece, CardSheet, CardState } from "../api/client";
import { plugKey } from "./fold";
import { actsOf, plugsOf } from "./pieces";

/** What of a plug's work is next: its well, out, read, the well dry again, the new one checked, in. */
export type PlugStep = "well" | "out" | "read" | "dry" | "new" | "in";

export interface PlugInHand {
  key: string;
  target: string;
  nth: number;
  /** How many of them the piece has at its cylinder. */
  count: number;
  step: PlugStep;
  /** Whether it is the last thing this piece asks for. */
  isLast: boolean;
}

export interface InHand {
  piece: CardPiece;
  /** Place among all pieces, from 1. */
  number: number;
  plug?: PlugInHand;
}

/** The first piece that is not done and not left; a wait that has begun lets the next one be in hand meanwhile. */
export function inHand(sheet: CardSheet, state: CardState, meanwhile = false): InHand | null {
  const index = sheet.pieces.findIndex(
    (piece) => isOpen(piece, state) && !(meanwhile && piece.waiting && piece.id in state.waiting),
  );
  const piece = sheet.pieces[index];
  if (!piece) return null;
  return { piece, number: index + 1, plug: plugInHand(piece, state) };
}

const STEP: Record<NonNullable<CardPiece["acts"]>[number]["act"], PlugStep> = {
  clean: "well",
  out: "out",
  read: "read",
  dry: "dry",
  in: "new",
  tighten: "in",
};

/** Each plug of the piece with what is done to it; one that only made room has no new one to check. */
function steps(piece: CardPiece): Omit<PlugInHand, "isLast">[] {
  return plugsOf(piece).flatMap(({ target, count, renewed }) =>
    Array.from({ length: count }, (_, i) => i + 1).flatMap((nth) =>
      actsOf(piece)
        .map(({ act }) => STEP[act])
        .filter((step) => renewed || step !== "new")
        .map((step) => ({ key: plugKey(target, nth), target, nth, count, step })),
    ),
  );
}

function plugInHand(piece: CardPiece, state: CardState): PlugInHand | undefined {
  const all = steps(piece);
  const open = all.filter(({ key, step }) => !state.plugs[key]?.[step]);
  const first = open[0];
  return first && { ...first, isLast: open.length === 1 };
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
