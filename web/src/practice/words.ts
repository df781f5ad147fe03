import type { PracticeCar, PracticeEnd } from "../api/client";
import type { Formatter } from "../shared/format";
import { list } from "../shared/format";
import { causeWords } from "../trace/words";

const COMPLAINTS: Record<string, string> = {
  always: "It shakes all the time",
  load: "It shakes when I pull away or climb",
  idle: "It shakes when I stand at a light",
  cold: "It shakes in the first minutes of a cold morning",
  hot: "It runs well until it is warm, then it shakes",
};
const LAMPS: Record<string, string> = {
  off: "the lamp is off",
  steady: "the lamp is lit",
  blinking: "the lamp blinks",
};

/** What the customer says. */
export const complaintWords = ({ when, lamp }: Pick<PracticeCar, "when" | "lamp">): string =>
  `${COMPLAINTS[when] ?? "It shakes"}; ${LAMPS[lamp] ?? "the lamp is off"}.`;

/** What is written of the car. */
export function carWords(
  { history, condition }: Pick<PracticeCar, "history" | "condition">,
  format: Pick<Formatter, "distance" | "years">,
): string {
  const { plugs_changed_km: at, plugs_changed_years: years } = history;
  const plugs = `plugs from ${format.distance(at)}, ${format.years(years)} ago`;
  const state = [
    condition.corrosion !== "none" && `${condition.corrosion} rust`,
    condition.brittle && "connectors baked brittle",
    history.compound_used && "compound used then",
  ].filter(Boolean);
  return [format.distance(history.odometer_km), plugs, ...state].join(" · ");
}

/** What it was. */
export function truthWords({ cause, part, cylinders, label }: PracticeEnd["truth"]): string {
  const what = causeWords({ cause, part: part ?? undefined });
  const place = cause === "elsewhere" ? "" : ` at ${list(cylinders)}`;
  return `It was the ${what}${place}${label ? `: ${label} mends it` : ": no part of this engine's list mends it"}.`;
}

/** What was renewed and whether it helped. */
export function renewedWords({ labels, cured }: PracticeEnd["yours"]): string {
  if (labels.length === 0) return cured ? "Nothing renewed, rightly" : "Nothing renewed, and it comes back";
  return `${list(labels)} renewed${cured ? ": it is mended" : ", and it comes back"}`;
}

/** How much of what was hidden was found, in bits. */
export function bitsWords({ learned, hidden }: PracticeEnd["bits"], format: Pick<Formatter, "figure">): string {
  const whole = format.figure(hidden, 1);
  if (learned < -0.05)
    return `${format.figure(-learned, 1)} bits further from the truth than the ${whole} at the start`;
  return `${learned < 0.05 ? "None" : format.figure(learned, 1)} of ${whole} bits found`;
}

const SAID: Record<string, string> = {
  place: "which cylinder",
  part: "which part",
  reach: "what comes off to reach it",
  amount: "what it comes to",
  plain: "no codes",
  trouble: "that a plug may fight back",
};

/** What the words should say. */
export const saidWords = (what: string): string => SAID[what] ?? what;

const FOUGHT: Record<string, string> = {
  broken: "would have broken",
  thread: "would have taken the thread along",
  stubborn: "would have been stubborn",
};

/** What plugs would have done; nothing where all come out freely. */
export function plugsWords(plugs: PracticeEnd["truth"]["plugs"]): string {
  const fought = plugs.filter((plug) => plug.outcome !== "free");
  if (plugs.length === 0) return "";
  if (fought.length === 0) return "Its plugs would have come out freely.";
  return `${fought.map((plug) => `The plug of ${plug.cylinder} ${FOUGHT[plug.outcome] ?? plug.outcome}`).join(". ")}.`;
}
