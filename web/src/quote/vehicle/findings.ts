import type { Finding } from "../../api/client";

/** What is found on a car, as the trade says it. */
export const KINDS: Record<Finding["kind"], string> = {
  "connector-lock-broken": "connector lock broken",
  "bolt-missing": "bolt missing",
  "bolt-snapped": "bolt snapped off",
  "clip-missing": "clip missing",
  "boot-torn": "boot torn",
  tracking: "tracking marks",
  "thread-repaired": "thread repaired",
  "oil-in-well": "oil in the well",
  "water-in-well": "water in the well",
  "oily-plug": "oily plug",
  "ash-on-plug": "ash on the plug",
  "wrong-plug": "wrong plug fitted",
  "part-renewed": "part renewed",
  "lost-in-well": "something fell into the well",
  other: "noted",
};

/** One finding in words: its kind, and what was said of it. */
export const said = ({ kind, words }: Finding): string =>
  kind === "other" && words ? words : [KINDS[kind], words].filter(Boolean).join(": ");

/** What stands at a cylinder of the drawing: its first finding, and how many more. */
export function tagOfFindings(findings: Finding[], cylinder: number): string {
  const [first, ...more] = findings.filter((finding) => finding.cylinder === cylinder);
  if (!first) return "";
  const words = first.kind === "other" ? "note" : KINDS[first.kind];
  return more.length > 0 ? `${words} +${more.length}` : words;
}
