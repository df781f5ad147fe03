import type { QuoteCard } from "../api/client";
import type { Formatter } from "../shared/format";

type Stage = QuoteCard["stage"];

const SAID: Record<Stage, (at: string) => string> = {
  draft: (at) => `draft, ${at}`,
  saved: (at) => `saved ${at}, not offered`,
  waiting: (at) => `waits for a yes since ${at}, not looked at`,
  seen: (at) => `waits for a yes, looked at ${at}`,
  lapsed: (at) => `lapsed ${at} without an answer`,
  declined: (at) => `declined ${at}`,
  agreed: (at) => `agreed ${at}, for the bay`,
  "in-bay": (at) => `in the bay since ${at}`,
  done: (at) => `done ${at}, to hand over`,
  "handed-over": (at) => `handed over ${at}`,
  "called-off": (at) => `called off ${at}`,
};

/** How far a quote has come and what was done with it last: "declined Nov 25: we sell the car". */
export const stageWords = (quote: QuoteCard, format: Formatter): string =>
  SAID[quote.stage](format.lately(quote.stage_at)) + (quote.reason ? `: ${quote.reason}` : "");

/** What is done with a quote next, and where; nothing where nothing is. */
export function nextAct(quote: QuoteCard): { word: string; to: string } | null {
  const yes = `/quotes/${quote.id}/yes`;
  switch (quote.stage) {
    case "draft":
    case "handed-over":
      return null;
    case "saved":
      return { word: "Offer", to: yes };
    case "waiting":
    case "seen":
      return { word: "Read out", to: yes };
    case "lapsed":
    case "declined":
    case "called-off":
      return { word: "The yes", to: yes };
    default:
      return { word: "Card", to: `/bay/${quote.job_id}` };
  }
}

/** Whether it may leave the lists: nobody waits for it, and nothing binds by it. */
export const mayBePutAway = (quote: QuoteCard): boolean =>
  ["draft", "saved", "lapsed", "declined", "called-off"].includes(quote.stage);
