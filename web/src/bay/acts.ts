import type { CardPiece, CardState, Mark } from "../api/client";
import type { InHand } from "./inHand";
import { openTicks } from "./inHand";
import { mark } from "./kept";
import { act } from "./words";

/** The press that moves the job on: what it says, and what it marks. No marks: something else comes first. */
export interface Act {
  label: string;
  marks?: () => Mark[];
}

/** What the main button does with the piece in hand; null where the piece asks for a choice of its own. */
export function mainAct(hand: InHand, state: CardState): Act | null {
  const { piece, plug } = hand;
  if (plug) return plugAct(piece, plug);
  if (piece.waiting && !(piece.id in state.waiting))
    return { label: "The wait begins", marks: () => [mark("waiting", { piece: piece.id })] };
  const open = openTicks(piece, state);
  if (open.length > 0) return { label: open.length === 1 ? "1 more to tick" : `${open.length} to tick` };
  const kind = piece.kind === "remove" ? "off" : piece.kind === "refit" ? "on" : piece.coil ? "seated" : "check";
  return { label: act(piece), marks: () => [mark(kind, { piece: piece.id })] };
}

function plugAct(piece: CardPiece, plug: NonNullable<InHand["plug"]>): Act | null {
  const about = { plug: piece.ref ?? "", nth: plug.nth };
  switch (plug.step) {
    case "well":
      return { label: "The well is clean", marks: () => [mark("well", about)] };
    case "in": {
      const last = plug.nth === (piece.plug?.count ?? 1);
      const how = piece.plug?.by ?? "torque";
      const label = how === "angle" ? "Turned home" : "Torqued";
      const done = last ? { piece: piece.id } : {};
      return { label, marks: () => [mark("in", { ...about, how, by_hand: true, ...done })] };
    }
    default:
      return null;
  }
}
