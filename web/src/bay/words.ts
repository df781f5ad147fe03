import type { CardPiece, CardState, Mark } from "../api/client";

type Condition = NonNullable<Mark["conditions"]>[number];

/** How a plug looks, and what that says. */
export const CONDITIONS: Record<Condition, [string, string]> = {
  normal: ["tan, dry", "normal"],
  sooty: ["dry black soot", "rich, or weak spark"],
  "wet-fuel": ["wet, smells of fuel", "not firing"],
  "wet-oil": ["wet, oily", "oil past rings or guides"],
  "oil-outside": ["oil outside, in the well", "cover or tube seal leaks"],
  blistered: ["white, blistered", "lean, or too hot"],
  ash: ["light ash crust", "burns oil"],
  worn: ["rounded, wide gap", "worn out"],
  cracked: ["cracked insulator", "misfires"],
  tracked: ["dark line down", "tracking: the boot goes too"],
  stained: ["stained ring", "corona, no crack"],
  rust: ["rust or water line", "the well drains badly"],
  loose: ["gasket not crushed", "was loose"],
  wrong: ["wrong part", "the right one for all"],
};

export const OUTCOMES: [NonNullable<Mark["outcome"]>, string][] = [
  ["free", "free"],
  ["stubborn", "stubborn"],
  ["thread", "thread came"],
  ["broken", "broke"],
];

export const SIGNS: [NonNullable<Mark["sign"]>, string][] = [
  ["freer", "freer than expected"],
  ["more-force", "more force out than in"],
  ["chirps", "chirps but moves"],
];

/** What is done with a piece, in the words of its button. */
export function act(piece: CardPiece): string {
  switch (piece.kind) {
    case "remove":
      return "It is off";
    case "refit":
      return "It is on";
    case "wait":
      return "It is over";
    case "again":
      return "It is on";
    default:
      return "Done";
  }
}

const PLACES = ["first", "second", "third", "fourth"];

/** One of the plugs of a cylinder: "Plug 5", "Plug 5, second". */
export const nthPlug = (label: string, nth: number, of: number) => (of > 1 ? `${label}, ${PLACES[nth - 1]}` : label);

/** A piece as the bay calls it: "Upper intake manifold, off"; cards from before titles stood on them have none. */
export function title(piece: CardPiece): string {
  if (piece.title) return piece.title;
  if (piece.kind === "remove") return `${piece.label}, off`;
  if (piece.kind === "refit") return `${piece.label}, on`;
  return piece.label;
}

const TURNS: [number, string][] = [
  [1 / 16, "1/16"],
  [1 / 12, "1/12"],
  [1 / 8, "1/8"],
  [1 / 2, "1/2"],
  [2 / 3, "2/3"],
];
const turn = (value: number) =>
  TURNS.find(([known]) => Math.abs(known - value) < 1e-6)?.[1] ?? String(Math.round(value * 100) / 100);

/** "1/2 to 2/3 turn after finger-tight" */
export const turns = ([low = 0, high = 0]: number[]) =>
  `${low === high ? turn(low) : `${turn(low)} to ${turn(high)}`} turn after finger-tight`;

export const SCHOOLS: Record<string, Record<string, string>> = {
  compound: { none: "no thread compound", film: "thin film of compound, first threads bare" },
  temperature: { cold: "engine cold", "crack-warm": "cracked loose warm, fitted cold" },
  gap: { check: "every new gap measured", trust: "pre-set gaps trusted" },
  grease: { reused: "film of grease in boots used again", none: "no grease in the boots" },
  order: { "one-at-a-time": "one bore open at a time", "all-out": "all out, laid in order" },
  tighten: { torque: "torque wrench", angle: "by angle" },
  soak: {
    none: "no soak",
    short: "short soak",
    "crack-and-soak": "cracked loose, soaked",
    overnight: "soaked overnight",
    "overnight-impact": "overnight, steady impact",
  },
};

type What = NonNullable<CardState["fights"][number]["what"]>;

/** What fights, and what is done about it, step by step. */
export const FIGHTS: Record<What, { title: string; steps: string[] }> = {
  stubborn: {
    title: "It will not turn",
    steps: [
      "Stop at the first hard resistance. Tighten a little, then loosen: a quarter turn each way.",
      "Penetrating oil into the well, wait, work it in and out again.",
      "Resistance grows while it comes: back in, soak longer. Never force it past the squeak.",
    ],
  },
  broken: {
    title: "It broke",
    steps: [
      "Eyes covered. Look what is left: insulator alone, or shell too. It spins and does not rise: it is apart.",
      "Insulator: a pin set in adhesive, let it cure, lift it straight out. No adhesive on the head's thread. Vacuum.",
      "It slips twice, or a tool breaks in it: stop and call.",
      "Look into the bore before anything is cranked.",
    ],
  },
  thread: {
    title: "The thread came with it",
    steps: [
      "Stop. Piston down, valves closed; grease on the tap holds the chips, cleared often.",
      "Insert square to the bore, to the depth of the seat. Resistance: back out, look.",
      "Blow and vacuum; look into the bore before cranking.",
    ],
  },
  connector: {
    title: "A connector will not let go",
    steps: [
      "Warm it, clean the lock, press it while the connector is pushed on, not pulled.",
      "It still holds: coil and harness come out together, and part on the bench.",
      "A broken lock is noted: it gets a new one, or a tie that is seen.",
    ],
  },
  bolt: {
    title: "A bolt snapped",
    steps: [
      "Eyes covered. Stub above the face: grip and turn with heat off the wire.",
      "Flush or below: center punch, left-hand drill, extractor.",
      "Thread cleaned by hand; the new bolt turns in with two fingers.",
    ],
  },
};

const SHELL = [
  "Shell: a stopper pushed through it first, so that nothing falls into the bore.",
  "Tap, greased, turned in slowly by hand, backed out and cleared often, until it holds.",
  "Drawn with sleeve and nut, straight up. Never pulled or twisted by the tap.",
];

/** What is done about a fight; where the shell stays in the head it is drawn after the insulator is out. */
export function fightSteps(what: What, isShellLeft: boolean): string[] {
  const { steps } = FIGHTS[what];
  return isShellLeft ? [...steps.slice(0, 2), ...SHELL, ...steps.slice(2)] : steps;
}
