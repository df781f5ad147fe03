/** What was, and what was undone: without end, since profiles share all that did not change. */
export interface History<T> {
  past: readonly T[];
  future: readonly T[];
  /** The field being typed in: what is typed in one go is undone in one. */
  mark: string | null;
}

export const NOTHING: History<never> = { past: [], future: [], mark: null };

/** Before something is changed. */
export function changing<T>(history: History<T>, before: T, mark: string | null = null): History<T> {
  if (mark !== null && mark === history.mark && history.past.length > 0) return { ...history, future: [] };
  return { past: [...history.past, before], future: [], mark };
}

/** One step back, and what was there; null where there is none. */
export function undone<T>(history: History<T>, now: T): [History<T>, T] | null {
  const last = history.past.at(-1);
  if (last === undefined) return null;
  return [{ past: history.past.slice(0, -1), future: [...history.future, now], mark: null }, last];
}

/** One step forth again. */
export function redone<T>(history: History<T>, now: T): [History<T>, T] | null {
  const next = history.future.at(-1);
  if (next === undefined) return null;
  return [{ past: [...history.past, now], future: history.future.slice(0, -1), mark: null }, next];
}
