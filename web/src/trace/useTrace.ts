import { useCallback, useMemo } from "react";
import { api, type TraceContent, type TracePage, type TraceSheet } from "../api/client";
import { failureOf } from "../working/failure";
import { useWorking } from "../working/useWorking";
import { type Clash, type Failure, stale, start } from "../working/workingCopy";

interface Figures {
  sheet: TraceSheet;
  bay: TracePage["bay"];
  /** What finding out may cost, and what it has taken. */
  findingOut: TracePage["finding_out"];
}

const failure = (error: unknown): Failure<TraceContent> =>
  failureOf(error, ({ code, message, body: { trace, theirs_version: version, theirs_by: by } }) =>
    code === "trace_conflict" && trace
      ? { kind: "clash", clash: { kind: "draft", message, theirs: trace as unknown as TraceContent, version, by } }
      : null,
  );

export interface Tracing extends Figures {
  content: TraceContent;
  isStale: boolean;
  isAway: boolean;
  problem: string;
  clash: Clash<TraceContent> | null;
  change: (next: (content: TraceContent) => TraceContent) => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

/** What is known of a misfire: kept as it is typed, judged by the core with every change. */
export function useTrace(page: TracePage): Tracing {
  const id = page.quote.id;
  const server = useMemo(
    () => ({
      store: async (version: number, content: TraceContent, _rebase: number | undefined, last: boolean) => {
        const {
          sheet,
          bay,
          finding_out: findingOut,
          version: next,
        } = await api.storeTrace(id, { version, content }, last);
        return { answer: { sheet, bay, findingOut }, version: next };
      },
      save: () => Promise.reject(new Error("A trace is kept as it is typed.")),
      failure,
    }),
    [id],
  );
  const { state, send, edit } = useWorking<TraceContent, Figures, never>(
    () =>
      start<TraceContent, Figures>(page.content, page.version, {
        sheet: page.sheet,
        bay: page.bay,
        findingOut: page.finding_out,
      }),
    server,
    () => undefined,
  );
  return {
    ...state.answer,
    content: state.content,
    isStale: stale(state),
    isAway: state.away,
    problem: state.problem,
    clash: state.clash,
    change: edit,
    keepMine: useCallback(() => send({ type: "mineKept" }), [send]),
    takeTheirs: useCallback(() => send({ type: "theirsTaken" }), [send]),
  };
}
