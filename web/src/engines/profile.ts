import type { EngineProfile } from "../api/client";
import type { Formatter } from "../shared/format";
import { torque } from "../shared/units";

/** A stored engine profile; the core has checked it. */
export type Profile = EngineProfile;
export type Step = Profile["steps"][number];
type Plug = Omit<Profile["plug"], "per_cylinder">;

/** Writes a number as the shop does. */
export type Say = Formatter["figure"];

/** Low, likely and high. */
const points = (minutes: number[], say: Say) => minutes.map((value) => say(value)).join(" / ");

/** How a seal is treated when it is disturbed. */
function renewal(seal: { rule?: string; chance?: number }): string {
  const renewed = Math.round((seal.chance ?? 0) * 100);
  return (seal.rule ?? "replace") === "replace" ? "always new" : `inspect (${renewed} in 100 renewed)`;
}

const ASSUMED = {
  dry: "for dry threads",
  compound: "for threads with compound",
  unstated: "unstated, taken as for dry threads",
};

/** A plug's torque, its range where the profile has one, and the threads it is meant for. */
export function plugTorque(
  { torque_nm, torque_range_nm, torque_assumes = "unstated" }: Plug,
  say: Say,
): string | undefined {
  const [low, high] = torque_range_nm ?? [];
  const figure =
    low !== undefined && high !== undefined
      ? `${torque(low, say)} to ${torque(high, say)}`
      : torque_nm && torque(torque_nm, say);
  return figure ? `${figure}, ${ASSUMED[torque_assumes]}` : undefined;
}

/** What a step comes with, line by line, in the trade's words. */
export function notesOf(
  step: Step,
  label: (id: string) => string,
  equipment: (id: string) => string,
  say: Say,
): string[] {
  const after = (step.after ?? []).map((entry) =>
    typeof entry === "string" ? label(entry) : `one of ${entry.any.map(label).join(" / ")}`,
  );
  const marks = [
    step.battery && "battery off",
    step.rust_prone && "rusts",
    step.brittle && "brittle when old",
    (step.people ?? 1) > 1 && `${step.people} people`,
  ].filter(Boolean);
  return [
    after.length > 0 && `After: ${after.join(", ")}`,
    (step.needs ?? []).length > 0 && `Takes: ${step.needs?.map(equipment).join(", ")}`,
    marks.length > 0 && marks.join(", "),
    ...(step.fasteners ?? []).map((row) =>
      [
        `${row.count ?? 1} × ${row.what}`,
        row.size,
        row.torque_nm && torque(row.torque_nm, say),
        row.pattern,
        row.rule === "replace" && "always new",
      ]
        .filter(Boolean)
        .join(", "),
    ),
    ...(step.seals ?? []).map((row) => `Seal ${row.part} × ${row.quantity ?? 1}, ${renewal(row)}`),
    ...(step.clips ?? []).map(
      (row) => `Clip ${row.part} × ${row.count ?? 1}, ${Math.round((row.chance ?? 0) * 100)} in 100 break`,
    ),
    ...(step.mishaps ?? []).map(
      (row) => `May happen: ${row.what}, ${Math.round(row.chance * 100)} in 100, ${points(row.minutes, say)} min`,
    ),
    ...(step.waits ?? []).map((row) => `Wait ${say(row.minutes)} min: ${row.for ?? "waiting"}`),
    ...(step.releases ?? []).map((row) => `Releases ${row.liters === undefined ? "" : say(row.liters)} l ${row.fluid}`),
    ...(step.closing ?? []).map(
      (row) => `Closing work: ${row.what}, ${row.minutes.map((value) => say(value)).join(" / ")} min`,
    ),
  ].filter((line): line is string => Boolean(line));
}

/** Steps in file order; neighbors that differ only in their cylinder stand in one row. */
export function alike(steps: Step[], label: (id: string) => string, say: Say): Step[][] {
  const shape = (step: Step) =>
    JSON.stringify([step.remove, step.refit, step.zone, notesOf(step, label, String, say), step.cautions]).replaceAll(
      /[A-Za-z-]+[ -]\d+/g,
      "",
    );
  return steps.reduce<Step[][]>((rows, step) => {
    const last = rows.at(-1);
    if (last?.[0] && shape(last[0]) === shape(step)) last.push(step);
    else rows.push([step]);
    return rows;
  }, []);
}

/** Where plugs differ from the engine's: each place once, in file order, with what differs. */
export function ownPlugs(profile: Profile, say: Say): [string, string][] {
  const found = new Map<string, string>();
  for (const { plug, position, id } of profile.targets) {
    if (!plug) continue;
    const gap = plug.gap_mm && `gap ${say(plug.gap_mm.low)} to ${say(plug.gap_mm.high)} mm`;
    const facts = [
      plug.part,
      plug.reach_mm && `reach ${say(plug.reach_mm)} mm`,
      plug.hex_mm && `hex ${say(plug.hex_mm)} mm`,
      gap,
      plug.torque_nm && torque(plug.torque_nm, say),
    ];
    const place = position ?? id;
    found.set(`Plug, ${place}`, facts.filter(Boolean).join(", "));
  }
  return [...found];
}
