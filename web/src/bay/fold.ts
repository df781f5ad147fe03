import type { CardState, Mark } from "../api/client";

/**
 * Where a job stands, from the marks on its card, while the device is away from the server. The core folds by the same
 * rules (core/…/card/fold.rb) and its word counts; formats/card-cases.json holds the two together.
 */
export function fold(marks: Mark[]): CardState {
  const ordered = inOrder(marks);
  const undone = undoneOf(ordered);
  const state: CardState = {
    started_at: null,
    finished_at: null,
    paused: null,
    done: {},
    waiting: {},
    plugs: {},
    ticks: {},
    left: {},
    fights: [],
    found: [],
    notes: [],
    codes: [],
    corrected: {},
    undone: [...undone].sort(),
  };
  ordered.filter((mark) => mark.kind !== "undo" && !undone.has(mark.id)).forEach((mark) => take(state, mark));
  return state;
}

/** By the device's time, then by id; each once. */
function inOrder(marks: Mark[]): Mark[] {
  const once = [...new Map([...marks].reverse().map((mark) => [mark.id, mark])).values()];
  return once.sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : 1));
}

/** An undo counts where it is made after what it undoes, and is not undone itself. */
function undoneOf(ordered: Mark[]): Set<string> {
  const place = new Map(ordered.map((mark, index) => [mark.id, index]));
  const found = new Set<string>();
  for (let index = ordered.length - 1; index >= 0; index -= 1) {
    const mark = ordered[index];
    if (mark?.kind !== "undo" || mark.of === undefined || found.has(mark.id)) continue;
    const of = place.get(mark.of);
    if (of !== undefined && of < index) found.add(mark.of);
  }
  return found;
}

const piecesOf = (mark: Mark): string[] => mark.pieces ?? (mark.piece === undefined ? [] : [mark.piece]);

/** "plug-3", and "plug-3/2" for the second of two. */
export const plugKey = (target: string, nth?: number) => (nth === undefined || nth === 1 ? target : `${target}/${nth}`);

function done(state: CardState, mark: Mark): void {
  piecesOf(mark).forEach((piece) => {
    state.done[piece] = mark.at;
    delete state.waiting[piece];
  });
}

/** Only the keys a mark has. */
function only<K extends keyof Mark>(mark: Mark, ...keys: K[]): Pick<Mark, K> {
  return Object.fromEntries(keys.filter((key) => mark[key] !== undefined).map((key) => [key, mark[key]])) as Pick<
    Mark,
    K
  >;
}

type Taken = (state: CardState, mark: Mark) => void;

const plug =
  (put: (known: CardState["plugs"][string], mark: Mark) => void): Taken =>
  (state, mark) => {
    const key = plugKey(mark.plug ?? "", mark.nth);
    const known = (state.plugs[key] ??= {});
    put(known, mark);
  };

const TAKEN: Partial<Record<Mark["kind"], Taken>> = {
  start: (state, mark) => {
    state.started_at ??= mark.at;
  },
  finished: (state, mark) => {
    state.finished_at = mark.at;
  },
  pause: (state, mark) => {
    state.paused = { since: mark.at, why: mark.why ?? "" };
  },
  resume: (state) => {
    state.paused = null;
  },
  off: done,
  on: done,
  check: done,
  seated: done,
  well: plug((known) => {
    known.well = true;
  }),
  dry: plug((known) => {
    known.dry = true;
  }),
  out: plug((known, mark) => {
    known.out = only(mark, "outcome", "sign") as typeof known.out;
  }),
  read: plug((known, mark) => {
    known.read = only(mark, "conditions", "gap_mm");
  }),
  new: plug((known, mark) => {
    known.new = only(mark, "gap_mm");
  }),
  in: (state, mark) => {
    plug((known, one) => {
      known.in = only(one, "how", "by_hand") as typeof known.in;
    })(state, mark);
    done(state, mark);
  },
  waiting: (state, mark) =>
    piecesOf(mark).forEach((piece) => {
      if (!(piece in state.done)) state.waiting[piece] = mark.at;
    }),
  tick: (state, mark) => {
    const list = (state.ticks[mark.piece ?? ""] ??= []);
    if (mark.item !== undefined && !list.includes(mark.item)) list.push(mark.item);
  },
  left: (state, mark) => {
    state.left[mark.piece ?? ""] = mark.why ?? "";
  },
  correct: (state, mark) => {
    state.corrected[mark.piece ?? ""] = only(mark, "minutes", "why") as { minutes: number; why: string };
  },
  fight: (state, mark) => {
    const fight = { ...only(mark, "id", "at", "what", "piece", "plug", "nth", "words"), over_at: null };
    state.fights.push(fight as CardState["fights"][number]);
  },
  over: (state, mark) => {
    const fight = state.fights.find((one) => one.id === mark.of);
    if (fight) fight.over_at = mark.at;
  },
  found: (state, mark) => {
    state.found.push(
      only(mark, "id", "at", "finding", "cylinder", "words", "picture", "tell") as CardState["found"][number],
    );
  },
  note: (state, mark) => {
    state.notes.push(only(mark, "id", "at", "words") as CardState["notes"][number]);
  },
  codes: (state, mark) => {
    state.codes.push(only(mark, "id", "at", "codes", "lamp", "again") as CardState["codes"][number]);
  },
};

function take(state: CardState, mark: Mark): void {
  TAKEN[mark.kind]?.(state, mark);
}
