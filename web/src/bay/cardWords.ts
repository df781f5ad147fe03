import type { CardState, JobCard } from "../api/client";
import type { Formatter } from "../shared/format";
import { SCHOOLS } from "./words";

/** When it would be ready, going on like this. */
export function pace(minutes: number, state: CardState, format: Formatter, now: number): string {
  if (state.finished_at) return `done at ${format.lately(state.finished_at)}`;
  if (!state.started_at) return `${format.minutes(minutes)} min on the clock`;
  return `at this pace ${format.lately(new Date(now + minutes * 60_000).toISOString())}`;
}

/** What of a card the server does not have yet, and why. */
export interface HandingIn {
  waiting: number;
  isAway: boolean;
  /** Nobody is signed in any more: the server takes nothing. */
  isSignedOut: boolean;
}

/** Whether everything marked here is at the server. */
export function handedIn({ waiting, isAway, isSignedOut }: HandingIn): string {
  const why = isSignedOut ? "signed out" : isAway ? "no connection" : "";
  if (waiting === 0) return why || "all handed in";
  return `${waiting} ${waiting === 1 ? "mark" : "marks"} not handed in yet${why && `, ${why}`}`;
}

/** What stands below the map: what is done, what is at the bottom, what goes back up. */
export function below(card: JobCard, state: CardState, format: Formatter): [string, string, string] {
  const { time } = card.standing;
  const { sheet } = card;
  const left = sheet.pieces.filter((piece) => !(piece.id in state.done));
  const plugs = sheet.plugs.length;
  const up = left.filter((piece) => piece.kind === "refit").reduce((sum, piece) => sum + piece.minutes, 0);
  return [
    time.reckoned_done > 0
      ? `so far ${format.minutes(time.taken)} min, ${format.minutes(time.reckoned_done)} reckoned`
      : "nothing marked yet",
    plugs > 0 ? `${plugs} plug${plugs === 1 ? "" : "s"}, ${SCHOOLS.order?.[sheet.schools.order ?? ""] ?? ""}` : "",
    `back up: ${format.minutes(up)} min`,
  ];
}
