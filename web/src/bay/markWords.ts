import type { CardSheet, Mark } from "../api/client";
import { KINDS as FOUND } from "../quote/vehicle/findings";
import { CONDITIONS, FIGHTS, nthPlug, OUTCOMES, title } from "./words";
import { WHYS } from "./whys";

const DOES: Record<Mark["kind"], string> = {
  start: "started",
  pause: "paused",
  resume: "went on",
  off: "",
  on: "",
  check: "",
  seated: "",
  well: "well clean",
  out: "came out",
  read: "read",
  dry: "well dry again",
  new: "new one checked",
  in: "new one in",
  waiting: "the wait began",
  tick: "ticked",
  fight: "it fights",
  over: "it gave way",
  found: "found",
  note: "noted",
  codes: "codes read",
  left: "left",
  correct: "time corrected",
  undo: "taken back",
  finished: "finished",
};

/** A mark as it is read back: what it is about, then what was done. */
export function markWords(mark: Mark, sheet: CardSheet): string {
  const about = aboutOf(mark, sheet);
  const did = [DOES[mark.kind], detail(mark)].filter(Boolean).join(": ");
  return [about, did].filter(Boolean).join(" · ");
}

function aboutOf(mark: Mark, sheet: CardSheet): string {
  if (mark.piece === CURE) return mark.kind === "waiting" ? "Adhesive cure" : "Adhesive cure, over";
  const piece = sheet.pieces.find((one) => one.id === mark.piece);
  const plug = sheet.plugs.find((one) => one.target === mark.plug && one.nth === (mark.nth ?? 1));
  if (plug) return nthPlug(plug.label, plug.nth, sheet.plugs.filter((one) => one.target === plug.target).length);
  return piece ? title(piece) : "";
}

/** The wait that belongs to no piece of the card: the adhesive in a shell that broke off. */
export const CURE = "cure";

function detail(mark: Mark): string {
  switch (mark.kind) {
    case "out":
      return OUTCOMES.find(([code]) => code === mark.outcome)?.[1] ?? "";
    case "read":
      return (mark.conditions ?? []).map((code) => CONDITIONS[code][0]).join("; ");
    case "fight":
      return mark.what ? FIGHTS[mark.what].title.toLowerCase() : "";
    case "found":
      return mark.finding ? FOUND[mark.finding] : "";
    case "pause":
      return WHYS.find(([why]) => why === mark.why)?.[1] ?? "";
    case "correct":
      return `${mark.minutes} min, ${mark.why}`;
    case "left":
      return mark.why ?? "";
    case "note":
      return mark.words ?? "";
    case "codes":
      return mark.codes?.map((one) => one.code).join(", ") || "none";
    default:
      return "";
  }
}
