/**
 * A working copy as a pure reducer: events in, state and commands out. It knows nothing of the network, of time or of
 * React, so every order of events can be tried (workingCopy.test.ts). The quote uses it; whatever else is edited and
 * autosaved can: C is what is edited, A what the server answers to a stored copy (its figures), R what a save gives
 * back.
 *
 * It promises: what is on the screen is stored last, whatever comes back when; a save freezes what is on the screen
 * with
 * the figures beside it, or says why not; what the server refused is never frozen in its older form; nothing is sent
 * twice
 * at the same time.
 */

/** Two versions: what is here, and what was stored or saved elsewhere meanwhile. */
export interface Clash<C> {
  kind: "draft" | "revision";
  message: string;
  theirs: C;
  version?: number;
  revision?: number;
  by?: string;
  at?: string;
}

/** The price is no longer the one that was on the screen. */
export interface PriceChange {
  message: string;
  changed: string[];
  shown: number | null;
  now: number | null;
}

export type Failure<C> =
  | { kind: "away" }
  | { kind: "refused"; message: string }
  | { kind: "clash"; clash: Clash<C> }
  | { kind: "price"; change: PriceChange };

export interface State<C, A> {
  /** On the screen. */
  content: C;
  /** What the server has, and its number. */
  stored: C;
  version: number;
  /** Set while the copy is to stand on top of a newer revision. */
  rebase?: number;
  /** The newest figures, and the content they belong to. */
  answer: A;
  figured: C;
  /** Figures must come anew although the content did not change. */
  refigure: boolean;
  flight: { kind: "store"; content: C } | { kind: "save" } | null;
  /** The key of a save that was asked for and is not done. */
  wish: string | null;
  away: boolean;
  /** What the server refused: not sent again until it is changed. */
  refused: C | null;
  problem: string;
  clash: Clash<C> | null;
  priceChange: PriceChange | null;
}

export type Event<C, A, R> =
  | { type: "edited"; content: C }
  | { type: "stored"; answer: A; version: number }
  | { type: "storeFailed"; failure: Failure<C> }
  | { type: "saveAsked"; key: string }
  | { type: "saved"; result: R }
  | { type: "saveFailed"; failure: Failure<C> }
  | { type: "again" }
  | { type: "mineKept" }
  | { type: "theirsTaken" }
  | { type: "noticeClosed" }
  | { type: "left" };

export type Command<C, A> =
  | { do: "store"; version: number; content: C; rebase?: number; last?: boolean }
  | { do: "save"; version: number; answer: A; key: string }
  | { do: "retryLater" };

export type Step<C, A> = [State<C, A>, Command<C, A>[]];

export const CHANGED_MEANWHILE = "Not saved: it was changed after Save was pressed. Look at it and press Save again.";
export const CANNOT_SAVE = "Not saved: what is on the page cannot be kept as it is.";

/** Equal as JSON: the order of keys counts, which is enough for copies made from one another. */
export const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

export function start<C, A>(content: C, version: number, answer: A): State<C, A> {
  return {
    content,
    stored: content,
    version,
    answer,
    figured: content,
    refigure: false,
    flight: null,
    wish: null,
    away: false,
    refused: null,
    problem: "",
    clash: null,
    priceChange: null,
  };
}

/** Whether the figures on the screen belong to something older than what is on it. */
export const stale = <C, A>(state: State<C, A>): boolean => state.refigure || !same(state.content, state.figured);

/** Whether anything here is not on the server yet. */
export const unsent = <C, A>(state: State<C, A>): boolean =>
  state.clash === null && (state.flight?.kind === "store" || !same(state.content, state.stored));

export function next<C, A, R>(state: State<C, A>, event: Event<C, A, R>): Step<C, A> {
  switch (event.type) {
    case "edited":
      return edited(state, event.content);
    case "stored":
      return stored(state, event.answer, event.version);
    case "storeFailed":
      return storeFailed(state, event.failure);
    case "saveAsked":
      return saveAsked(state, event.key);
    case "saved":
      return onward({ ...state, flight: null, wish: null, problem: "", away: false });
    case "saveFailed":
      return saveFailed(state, event.failure);
    case "again":
      return onward({ ...state, away: false });
    case "mineKept":
      return settled(state, state.content);
    case "theirsTaken":
      return state.clash ? settled(state, state.clash.theirs) : [state, []];
    case "noticeClosed":
      return [{ ...state, priceChange: null, problem: "" }, []];
    case "left":
      return left(state);
  }
}

function edited<C, A>(state: State<C, A>, content: C): Step<C, A> {
  if (same(content, state.content)) return [state, []];
  const waiting = state.wish !== null && state.flight?.kind !== "save";
  return onward({
    ...state,
    content,
    refused: null,
    priceChange: null,
    wish: waiting ? null : state.wish,
    problem: waiting ? CHANGED_MEANWHILE : "",
  });
}

function stored<C, A>(state: State<C, A>, answer: A, version: number): Step<C, A> {
  if (state.flight?.kind !== "store") return [state, []];
  const { content } = state.flight;
  const current = same(content, state.content);
  return onward({
    ...state,
    flight: null,
    stored: content,
    version,
    rebase: undefined,
    away: false,
    refigure: false,
    answer: current ? answer : state.answer,
    figured: current ? content : state.figured,
    problem: state.problem === CHANGED_MEANWHILE ? state.problem : "",
  });
}

function storeFailed<C, A>(state: State<C, A>, failure: Failure<C>): Step<C, A> {
  if (state.flight?.kind !== "store") return [state, []];
  const { content } = state.flight;
  const landed = { ...state, flight: null };
  if (
    failure.kind === "clash" &&
    failure.clash.kind === "draft" &&
    same(failure.clash.theirs, content) &&
    failure.clash.version !== undefined
  )
    // It reached the server and its answer was lost: the other version is our own. Only its figures are missing.
    return onward({ ...landed, stored: content, version: failure.clash.version, refigure: true, away: false });
  if (failure.kind === "refused")
    return onward({ ...landed, refused: content, wish: null, problem: failure.message, away: false });
  return failed(landed, failure);
}

function saveAsked<C, A>(state: State<C, A>, key: string): Step<C, A> {
  if (state.clash || state.wish !== null) return [state, []];
  if (state.refused !== null && same(state.refused, state.content))
    return [{ ...state, problem: `${CANNOT_SAVE} ${state.problem.replace(`${CANNOT_SAVE} `, "")}`.trim() }, []];
  return onward({ ...state, wish: key, problem: "", priceChange: null });
}

function saveFailed<C, A>(state: State<C, A>, failure: Failure<C>): Step<C, A> {
  if (state.flight?.kind !== "save") return [state, []];
  const landed = { ...state, flight: null };
  if (failure.kind === "price") return onward({ ...landed, wish: null, priceChange: failure.change, refigure: true });
  if (failure.kind === "refused") return onward({ ...landed, wish: null, problem: failure.message });
  // Changed while it was under way and its answer is lost: sent again it would freeze something else.
  if (failure.kind === "away" && !same(state.content, state.stored))
    return failed({ ...landed, wish: null, problem: CHANGED_MEANWHILE }, failure);
  return failed(landed, failure);
}

/** Away: everything stays and goes out later. A clash: nothing goes out until one version is chosen. */
function failed<C, A>(state: State<C, A>, failure: Failure<C>): Step<C, A> {
  if (failure.kind === "clash") return [{ ...state, clash: failure.clash, wish: null, away: false }, []];
  return [{ ...state, away: true }, [{ do: "retryLater" }]];
}

function settled<C, A>(state: State<C, A>, content: C): Step<C, A> {
  const { clash } = state;
  if (!clash) return [state, []];
  const draft = clash.kind === "draft";
  return onward({
    ...state,
    clash: null,
    content,
    refused: null,
    problem: "",
    version: clash.version ?? state.version,
    stored: draft ? clash.theirs : state.stored,
    rebase: draft ? state.rebase : clash.revision,
    refigure: true,
  });
}

function left<C, A>(state: State<C, A>): Step<C, A> {
  if (!unsent(state) || state.refused !== null) return [state, []];
  return [state, [{ do: "store", version: state.version, content: state.content, rebase: state.rebase, last: true }]];
}

/** What is to be sent next, if anything may be: the copy before the save. */
function onward<C, A>(state: State<C, A>): Step<C, A> {
  if (state.flight || state.clash || state.away) return [state, []];
  const sendable = state.refused === null || !same(state.refused, state.content);
  const needed = !same(state.content, state.stored) || state.rebase !== undefined || state.refigure;
  if (needed && sendable) {
    const flight = { kind: "store" as const, content: state.content };
    return [
      { ...state, flight },
      [{ do: "store", version: state.version, content: state.content, rebase: state.rebase }],
    ];
  }
  if (state.wish !== null && !needed)
    return [
      { ...state, flight: { kind: "save" } },
      [{ do: "save", version: state.version, answer: state.answer, key: state.wish }],
    ];
  return [state, []];
}
