import type { CardPiece, CardSheet } from "../api/client";

type Act = NonNullable<CardPiece["acts"]>[number];
type Plug = NonNullable<CardPiece["plugs"]>[number];

/** What the plug's own work was on cards from before acts stood on them. */
const OWN_WORK: Act[] = (["clean", "out", "read", "in", "tighten"] as const).map((act) => ({ act, does: [] }));

/** What is done to the plugs of a piece, in order; nothing where it touches none. */
export const actsOf = (piece: CardPiece): Act[] => piece.acts ?? (isOldWork(piece) ? OWN_WORK : []);

/** The plugs a piece is about. */
export const plugsOf = (piece: CardPiece): Plug[] =>
  piece.plugs ?? (isOldWork(piece) ? [{ target: piece.ref ?? "", count: piece.plug?.count ?? 1, renewed: true }] : []);

const isOldWork = (piece: CardPiece) => piece.plug !== undefined && piece.title === undefined;

/** Gap, torque and seat of a plug, wherever on the card it goes in. */
export const aboutPlug = (sheet: CardSheet, target?: string): CardPiece["plug"] =>
  sheet.pieces.find((piece) => plugsOf(piece).some((plug) => plug.target === target))?.plug;
