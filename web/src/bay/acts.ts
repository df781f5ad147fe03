import type { CardPiece, CardState, Mark } from "../api/client";
import type { InHand, PlugInHand } from "./inHand";
import { openTicks } from "./inHand";
import { mark } from "./offlineQueue";
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
  return { label: act(piece), marks: () => [mark(doneBy(piece), { piece: piece.id })] };
}

const doneBy = (piece: CardPiece): Mark["kind"] => {
  if (piece.kind === "remove") return "off";
  if (piece.kind === "refit") return "on";
  return piece.coil ? "seated" : "check";
};

/** The mark that ends a piece with the last thing done to its plugs, where nothing is left to tick. */
export const ending = ({ piece, plug }: InHand, state: CardState): Mark[] =>
  plug?.isLast && openTicks(piece, state).length === 0 ? [mark(doneBy(piece), { piece: piece.id })] : [];

function plugAct(piece: CardPiece, plug: PlugInHand): Act | null {
  const about = { plug: plug.target, nth: plug.nth };
  switch (plug.step) {
    case "well":
      return { label: "The well is clean", marks: () => [mark("well", about)] };
    case "dry":
      return { label: "Dry and clean", marks: () => [mark("dry", about)] };
    case "in": {
      const how = piece.plug?.by ?? "torque";
      const label = how === "angle" ? "Turned home" : "Torqued";
      const done = plug.isLast ? { piece: piece.id } : {};
      return { label, marks: () => [mark("in", { ...about, how, by_hand: true, ...done })] };
    }
    default:
      return null;
  }
}
