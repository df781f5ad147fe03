import type { TraceContent, TraceSheet } from "../api/client";
import { list } from "../shared/format";

type Hypothesis = TraceSheet["hypotheses"][number];
export type Test = TraceSheet["tests"][number];
type Done = Pick<NonNullable<TraceContent["evidence"]>[number], "test" | "cylinder" | "with" | "outcome">;

const CAUSES: Record<string, string> = {
  coil: "coil",
  plug: "plug",
  wire: "wire",
  wiring: "wiring or driver",
  injector: "injector",
  compression: "compression",
  "cap-and-rotor": "cap and rotor",
  elsewhere: "mixture or timing",
};

/** What may be wrong, in a word; a boot is what a coil hangs on its plug by. */
export function causeWords({ cause, part }: Pick<Hypothesis, "cause" | "part">): string {
  return part === "boot" ? "boot" : (CAUSES[cause] ?? cause);
}

const EXCHANGED: Record<string, string> = { "swap-coil": "coil", "swap-plug": "plug", "swap-both": "coil and plug" };

/** A test as it is asked for. */
export function testWords({ test, cylinder, with: partner }: Pick<Test, "test" | "cylinder" | "with">): string {
  const exchanged = EXCHANGED[test];
  if (exchanged) return `Exchange ${exchanged} ${cylinder} with ${partner ?? "another"}`;
  switch (test) {
    case "look-coil":
      return `Look at coil and boot ${cylinder}`;
    case "read-plug":
      return `Read plug ${cylinder}`;
    case "check-wire":
      return `Measure the wire or boot of ${cylinder}`;
    case "check-wiring":
      return `Check wiring and driver of ${cylinder}`;
    case "balance-injector":
      return `Balance injector ${cylinder}`;
    default:
      return `Measure compression ${cylinder}`;
  }
}

const MOVED: Record<string, string> = { moved: "went along", stayed: "stayed", both: "both now", none: "gone" };

/** What to do before a swap is run, so that what it shows is true. */
export const SWAP_FIRST =
  "Clear the codes, note where each part sits now, then run it the way it misfires: an idle does not prove a load.";

/** Whether a fault that was gone says anything: only where it was run the way it misfires. */
export const isNoProof = (done: { outcome: string; run?: string }) =>
  done.outcome === "none" && done.run === "otherwise";

/** Parts that are renewed together, by their targets: "coil 2 and plug 2". */
export const togetherWords = (targets: string[]): string => list(targets.map((id) => id.replaceAll("-", " ")));

/** Misfires counted for each cylinder, as they are typed: "3: 214, 1: 4". */
export function readCounters(text: string): Record<string, number> | null {
  const found: Record<string, number> = {};
  for (const one of text.split(/[,;]+/).filter((part) => part.trim())) {
    const [, cylinder, count] = /^\s*(\d{1,2})\s*[:= ]\s*(\d{1,7})\s*$/.exec(one) ?? [];
    if (!cylinder || !count) return null;
    found[cylinder] = Number(count);
  }
  return found;
}

/** The same written out again. */
export const counterWords = (counters: Record<string, number> = {}): string =>
  Object.entries(counters)
    .map(([cylinder, count]) => `${cylinder}: ${count}`)
    .join(", ");

/** What a test showed. */
export function outcomeWords(test: string, outcome: string): string {
  return test in EXCHANGED ? (MOVED[outcome] ?? outcome) : outcome.replaceAll("-", " ");
}

/** A test that was done, as a ledger line. */
export const doneWords = (done: Done): string => `${testWords(done)}: ${outcomeWords(done.test, done.outcome)}`;

/** When it misfires. */
export const MOMENTS: Record<string, string> = {
  always: "always",
  load: "under load",
  idle: "at idle",
  cold: "when cold",
  hot: "when hot",
};

/** A fault code and what it says. */
export function codeWords({ code, says, cylinder, status }: TraceSheet["codes"][number]): string {
  const told = {
    cylinder: `cylinder ${cylinder ?? ""} misfires`,
    several: "several misfire, or at random",
    cold: "in the first turns after a cold start",
    catalyst: "the catalyst. Mend the misfire first and look again; never sell one for it",
    other: "no evidence of a misfire",
  }[says];
  const permanent = status === "permanent" ? " (permanent: the car clears it itself over its next drives)" : "";
  return `${code}${permanent}: ${told}`;
}

/** What a suspect's chance is, in a hundred. */
export const inHundred = (chance: number): string => {
  const whole = Math.round(chance * 100);
  if (chance > 0 && whole === 0) return "<1 %";
  return `${chance < 1 && whole === 100 ? 99 : whole} %`;
};

function known({ label, cured }: NonNullable<TraceSheet["repair"]>, lead?: Hypothesis): string {
  const told = `It is known: ${label} mends it in ${Math.round(cured * 100)} of 100 such cars.`;
  if (!lead?.now) return told;
  const here = `${causeWords(lead)} ${list(lead.cylinders)}`;
  return `${told} ${here.charAt(0).toUpperCase()}${here.slice(1)} sits there now.`;
}

/** The sentence that says what to do now. */
export function adviceWords(sheet: TraceSheet): string {
  const lead = sheet.hypotheses[0];
  switch (sheet.advice) {
    case "repair":
      if (sheet.repair) return known(sheet.repair, lead);
      return lead ? `It is known: ${leadWords(lead)}. No part of this engine's list mends it.` : "It is known.";
    case "suspect":
      return "Renewing what is suspected is fairer than finding out: the next test costs more than being wrong.";
    case "elsewhere":
      return "Not at one cylinder: look at mixture and timing before any part is renewed.";
    default:
      return sheet.tests.length > 0
        ? "Find out before renewing anything."
        : "Nothing is left to test with what is here.";
  }
}

/** A suspect with its cylinders, and where its part sits now. */
export function leadWords({ cause, part, cylinders, now }: Hypothesis): string {
  const place = cause === "elsewhere" ? "" : ` ${list(cylinders)}`;
  return `${causeWords({ cause, part })}${place}${now ? `, which sits at ${list(now)} now` : ""}`;
}

/** What is told to the customer: what was tested, what it showed, what it rules out. */
export function toSay(sheet: TraceSheet): string[] {
  const tests = sheet.evidence.filter((row) => row.test !== undefined);
  const lead = sheet.hypotheses[0];
  if (!lead) return [];
  const told = tests.map((row) => toldTest(row as Done));
  const unlikely = [...new Set(sheet.hypotheses.filter((one) => one.chance < 0.02).map(causeWords))];
  const still = new Set(sheet.hypotheses.filter((one) => one.chance >= 0.02).map(causeWords));
  const ruled = unlikely.filter((word) => !still.has(word));
  const sure = lead.chance >= 0.9;
  return [
    ...told,
    sure ? `So it is ${leadWords(lead)}.` : `Most likely ${leadWords(lead)}: ${Math.round(lead.chance * 100)} in 100.`,
    ...(ruled.length > 0 && tests.length > 0 ? [`Hardly: ${ruled.join(", ")}.`] : []),
  ];
}

const LOOKED: Record<string, (cylinder: number) => string> = {
  "look-coil": (cylinder) => `We looked at the coil and boot of cylinder ${cylinder}`,
  "read-plug": (cylinder) => `We took out the plug of cylinder ${cylinder} and read it`,
  "check-wire": (cylinder) => `We measured the wire or boot of cylinder ${cylinder}`,
  "check-wiring": (cylinder) => `We checked the wiring of cylinder ${cylinder}`,
  "balance-injector": (cylinder) => `We balanced the injector of cylinder ${cylinder} against the others`,
  compression: (cylinder) => `We measured the compression of cylinder ${cylinder}`,
};

function toldTest({ test, cylinder, with: partner, outcome }: Done): string {
  const part = EXCHANGED[test];
  if (!part) return `${LOOKED[test]?.(cylinder) ?? testWords({ test, cylinder })}: ${outcomeWords(test, outcome)}.`;
  const showed: Record<string, string> = {
    moved: "and the fault went with it.",
    stayed: "and the fault stayed where it was.",
    both: "and now both misfire.",
    none: "and the fault was gone.",
  };
  return `We exchanged the ${part} of cylinder ${cylinder} with that of ${partner}, ${showed[outcome] ?? outcome}`;
}

/** Why this test and not another: its minutes here, and what the runner-up would tell for its own. */
export function whyThis(tests: Test[], say: (minutes: number) => string): string {
  const [best, next] = tests;
  if (!best) return "";
  const needed = Math.round(best.minutes) - Math.round(best.lost_minutes);
  const free = needed > 0 ? `, ${say(needed)} of them the repair takes anyway` : "";
  const own = `${say(best.minutes)} min on this engine${free}.`;
  if (!next || best.bits_per_minute <= 0) return own;
  const share = Math.round((next.bits_per_minute / best.bits_per_minute) * 100);
  return `${own} ${testWords(next)} takes ${say(next.minutes)} and tells ${share} % as much for its time.`;
}
