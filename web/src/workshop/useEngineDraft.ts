import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import {
  type Act,
  api,
  type EngineProfile,
  type ImportReport,
  type WorkshopDraft,
  type WorkshopLook,
} from "../api/client";
import { failureOf } from "../working/failure";
import { useWorking } from "../working/useWorking";
import { type Clash, type Failure, stale, start } from "../working/workingCopy";
import { about, at, type Path, pointer, typed } from "./edits";
import { changing, type History, NOTHING, redone, undone } from "./history";

const failure = (error: unknown): Failure<EngineProfile> =>
  failureOf(error, ({ code, message, body }) => {
    const { profile: theirs, theirs_version: version, theirs_by: by, theirs_at: at } = body;
    if (code !== "draft_conflict" || !theirs) return null;
    return {
      kind: "clash",
      clash: { kind: "draft", message, theirs: theirs as unknown as EngineProfile, version, by, at },
    };
  });

export interface EngineDraft {
  profile: EngineProfile;
  /** What it says, of the newest that could be read. */
  look: WorkshopLook;
  /** The newest look without faults: its drawing stays while a fault is mended. */
  drawn: WorkshopLook;
  isStale: boolean;
  isAway: boolean;
  isSaving: boolean;
  problem: string;
  clash: Clash<EngineProfile> | null;
  canUndo: boolean;
  canRedo: boolean;
  /** Changes one place by hand; what is typed in one field in one go is undone in one. */
  type: (path: Path, value: unknown) => void;
  /** What each step lies over and what is an alternative to what, of the newest that could be read. */
  over: WorkshopLook["over"];
  forks: WorkshopLook["forks"];
  /** One figure for three points: spread as its kind does; beside a fault it stands as it was typed. */
  about: (path: Path, minutes: number | null) => void;
  /** Does something to the drawing; the core says what follows from it. */
  act: (act: Act, mark?: string) => void;
  undo: () => void;
  redo: () => void;
  keep: (why: string) => void;
  keepMine: () => void;
  takeTheirs: () => void;
}

/** One engine under the pencil: kept as it is typed, looked at by the core with every key, undone without end. */
export function useEngineDraft(draft: WorkshopDraft, onKept: (report: ImportReport) => void): EngineDraft {
  const { code } = draft;
  const why = useRef("");
  // What a look has in common with the one before it stays the same object: what is drawn from it is not drawn anew.
  const seen = useRef(draft.look);
  const likeBefore = useCallback((look: WorkshopLook) => (seen.current = replaceEqualDeep(seen.current, look)), []);
  const server = useMemo(
    () => ({
      store: async (version: number, profile: EngineProfile, _rebase: number | undefined, last: boolean) => {
        const answer = await api.storeEngine(code, { version, profile }, last);
        return { answer: likeBefore(answer.look), version: answer.version };
      },
      save: (version: number, _look: WorkshopLook, key: string) =>
        api.keepEngine(code, { version, why: why.current }, key),
      failure,
    }),
    [code, likeBefore],
  );
  const { state, send, edit } = useWorking<EngineProfile, WorkshopLook, ImportReport>(
    () => start(draft.profile, draft.version, draft.look),
    server,
    onKept,
  );
  const now = useRef(state.content);
  useEffect(() => {
    now.current = state.content;
  }, [state.content]);

  const faulty = useRef(draft.look.faults.length > 0);
  const [history, setHistory] = useState<History<EngineProfile>>(NOTHING);
  const [ahead, setAhead] = useState<{ profile: EngineProfile; look: WorkshopLook } | null>(null);
  const [refused, setRefused] = useState("");

  const put = useCallback(
    (profile: EngineProfile) => {
      now.current = profile;
      edit(() => profile);
    },
    [edit],
  );
  const change = useCallback(
    (profile: EngineProfile, mark: string | null) => {
      const before = now.current;
      setHistory((old) => changing(old, before, mark));
      put(profile);
    },
    [put],
  );
  const type = useCallback(
    (path: Path, value: unknown) => {
      setRefused("");
      change(typed(now.current, path, value), pointer(path));
    },
    [change],
  );

  // Acts go one after another, each on what is on the page then; of figures typed in one go only the newest counts.
  const waiting = useRef<{ act: Act; mark?: string }[]>([]);
  const isActing = useRef(false);
  const work = useCallback(async () => {
    if (isActing.current) return;
    isActing.current = true;
    try {
      for (let next = waiting.current.shift(); next; next = waiting.current.shift()) {
        const before = now.current;
        const made = await api.act({ profile: before, act: next.act });
        if (now.current !== before) {
          waiting.current.unshift(next);
          continue;
        }
        const profile = replaceEqualDeep(before, made.profile) as EngineProfile;
        setAhead({ profile, look: likeBefore(made.look) });
        change(profile, next.mark ?? null);
      }
    } catch (error) {
      waiting.current = [];
      setRefused(error instanceof Error ? error.message : "That was not done.");
    } finally {
      isActing.current = false;
    }
  }, [change, likeBefore]);
  const act = useCallback(
    (wanted: Act, mark?: string) => {
      setRefused("");
      if (mark) waiting.current = waiting.current.filter((one) => one.mark !== mark);
      waiting.current.push({ act: wanted, mark });
      void work();
    },
    [work],
  );

  const setAbout = useCallback(
    (path: Path, minutes: number | null) => {
      const place = pointer(path);
      // a field that is empty for a moment waits for what is typed into it
      if (minutes === null) return;
      if (faulty.current) type(path, about(at(now.current, path), minutes));
      else act({ do: "about", at: place, minutes }, place);
    },
    [act, type],
  );

  const step = useCallback(
    (move: typeof undone) => {
      const moved = move(history, now.current);
      if (!moved) return;
      setHistory(moved[0]);
      put(moved[1]);
    },
    [history, put],
  );

  const look = ahead?.profile === state.content ? ahead.look : state.answer;
  const [drawn, setDrawn] = useState(draft.look);
  useEffect(() => {
    faulty.current = look.faults.length > 0;
  }, [look]);
  if (look.page && look !== drawn) setDrawn(look);
  return {
    profile: state.content,
    look,
    drawn,
    isStale: stale(state) && ahead?.profile !== state.content,
    isAway: state.away,
    isSaving: state.wish !== null,
    problem: refused || state.problem,
    clash: state.clash,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    over: look.over.length > 0 ? look.over : drawn.over,
    forks: look.over.length > 0 ? look.forks : drawn.forks,
    type,
    about: setAbout,
    act,
    undo: useCallback(() => step(undone), [step]),
    redo: useCallback(() => step(redone), [step]),
    keep: useCallback(
      (words: string) => {
        why.current = words;
        send({ type: "saveAsked", key: crypto.randomUUID() });
      },
      [send],
    ),
    keepMine: useCallback(() => send({ type: "mineKept" }), [send]),
    takeTheirs: useCallback(() => send({ type: "theirsTaken" }), [send]),
  };
}
