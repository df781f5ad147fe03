import type { HandedIn, JobCard, Mark } from "../api/client";
import { fold } from "./fold";

/** What a device keeps of one job: the card as the server last said it, and marks that are not handed in yet. */
export interface Kept {
  card: JobCard;
  /** Made here, oldest first. */
  queue: Mark[];
}

export type Happened =
  { kind: "fetched"; card: JobCard } | { kind: "pressed"; marks: Mark[] } | { kind: "handed-in"; answer: HandedIn };

/**
 * What a device keeps, after something happened. A card that comes from the server never takes away what was marked
 * here: that stays until the server says it has it, or will not have it.
 */
export function kept(before: Kept | null, happened: Happened): Kept | null {
  switch (happened.kind) {
    case "fetched":
      return { card: newer(before, happened.card), queue: waiting(before?.queue ?? [], happened.card) };
    case "pressed":
      return before && { ...before, queue: [...before.queue, ...happened.marks] };
    case "handed-in": {
      const { taken, refused, ...card } = happened.answer;
      const gone = new Set([...taken, ...refused.map((one) => one.id)]);
      const left = (before?.queue ?? []).filter((mark) => !gone.has(mark.id));
      return { card: newer(before, card), queue: waiting(left, card) };
    }
  }
}

/** Answers may overtake one another: marks are only ever added, so that the one with more of them is the later. */
function newer(before: Kept | null, card: JobCard): JobCard {
  const known = before?.card;
  if (!known || known.job.id !== card.job.id) return card;
  return known.revision > card.revision || known.marks.length > card.marks.length ? known : card;
}

function waiting(queue: Mark[], card: JobCard): Mark[] {
  const there = new Set(card.marks.map((mark) => mark.id));
  return queue.filter((mark) => !there.has(mark.id));
}

/** The state to show: what the server knows and what is marked here. */
export const stateOf = ({ card, queue }: Kept) => fold([...card.marks, ...queue]);

let last = 0;

/** A mark made now; two at once keep their order. */
export function mark<K extends Mark["kind"]>(
  kind: K,
  values: Omit<Partial<Mark>, "id" | "at" | "kind"> = {},
  now = Date.now(),
): Mark {
  last = Math.max(now, last + 1);
  return { id: crypto.randomUUID(), at: new Date(last).toISOString(), kind, ...values };
}
