import { useCallback, useEffect, useRef, useState } from "react";
import { api, Away, type Conflict, type Content, type Priced, type QuotePage, Refused } from "../api/client";
import { ON_DEMAND, type Panel } from "./panels";

/** Two versions of one quote: what is here, and what was stored meanwhile. */
export interface Clash {
  kind: "draft" | "revision";
  body: Conflict;
}

export interface WorkingCopy {
  content: Content;
  priced: Priced;
  /** True while the figures on the page belong to an older selection. */
  stale: boolean;
  offline: boolean;
  problem: string;
  clash: Clash | null;
  saving: boolean;
  revisions: QuotePage["revisions"];
  panel: Panel;
  setPanel: (panel: Panel) => void;
  change: (next: (content: Content) => Content) => void;
  save: () => Promise<void>;
  keepMine: () => void;
  takeTheirs: () => void;
}

const RETRY_MS = 2_000;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * The advisor's working copy. Every change is shown at once, stored on the server and priced there; changes made
 * while a request is under way go out together with the next one, so the newest always wins. Losing the connection
 * loses nothing: the copy stays here and goes out when the server answers again.
 */
export function useWorkingCopy(page: QuotePage): WorkingCopy {
  const id = page.quote.id;
  const [content, setContent] = useState(page.draft.content);
  const [priced, setPriced] = useState<Priced>({ draft: page.draft, sheet: page.sheet, others: page.others, resolved: page.resolved });
  const [revisions, setRevisions] = useState(page.revisions);
  const [offline, setOffline] = useState(false);
  const [problem, setProblem] = useState("");
  const [clash, setClash] = useState<Clash | null>(null);
  const [saving, setSaving] = useState(false);
  const [pending, setPending] = useState(false);
  const [panel, setShown] = useState<Panel>("layers");

  const wanted = useRef(page.draft.content);
  const sent = useRef(page.draft.content);
  const version = useRef(page.draft.version);
  const rebase = useRef<number | undefined>(undefined);
  const shown = useRef<Panel>("layers");
  const asked = useRef<Panel>("layers");
  const busy = useRef(false);
  const held = useRef(false);
  const saveKey = useRef<string | null>(null);
  const timer = useRef<number | undefined>(undefined);
  const flushRef = useRef<() => Promise<boolean>>(async () => true);

  const refuse = useCallback((error: unknown, mine: Content) => {
    if (error instanceof Refused && error.code === "draft_conflict") {
      // A request that reached the server while its answer was lost: the other version is our own.
      if (same(error.body.theirs, mine) && error.body.theirs_version) {
        version.current = error.body.theirs_version;
        return "again";
      }
      held.current = true;
      setClash({ kind: "draft", body: error.body });
      return "held";
    }
    if (error instanceof Refused && error.code === "revision_conflict") {
      held.current = true;
      setClash({ kind: "revision", body: error.body });
      return "held";
    }
    if (error instanceof Away || (error instanceof Refused && error.status >= 500)) {
      setOffline(true);
      return "later";
    }
    setProblem(error instanceof Error ? error.message : "Storing failed.");
    return "held";
  }, []);

  /** Sends what is wanted until the server has it. @returns whether everything is stored */
  const flush = useCallback(async (): Promise<boolean> => {
    if (busy.current || held.current) return false;
    busy.current = true;
    window.clearTimeout(timer.current);
    try {
      while (sent.current !== wanted.current || rebase.current !== undefined || shown.current !== asked.current) {
        const mine = wanted.current;
        const open = shown.current;
        setPending(true);
        try {
          const answer = await api.storeDraft(id, { version: version.current, content: mine, base_revision: rebase.current, panel: open });
          version.current = answer.draft.version;
          rebase.current = undefined;
          sent.current = mine;
          asked.current = open;
          setOffline(false);
          setProblem("");
          if (wanted.current === mine) setPriced(answer);
        } catch (error) {
          const then = refuse(error, mine);
          if (then === "again") {
            continue;
          }
          if (then === "later") timer.current = window.setTimeout(() => void flushRef.current(), RETRY_MS);
          else {
            sent.current = mine;
            asked.current = open;
          }
          return false;
        }
      }
      setPending(false);
      return true;
    } finally {
      busy.current = false;
    }
  }, [id, refuse]);

  useEffect(() => {
    flushRef.current = flush;
  }, [flush]);

  const change = useCallback(
    (next: (content: Content) => Content) => {
      const changed = next(wanted.current);
      if (same(changed, wanted.current)) return;
      wanted.current = changed;
      saveKey.current = null;
      setContent(changed);
      setPending(true);
      void flush();
    },
    [flush],
  );

  const setPanel = useCallback(
    (next: Panel) => {
      shown.current = next;
      setShown(next);
      if (ON_DEMAND.includes(next)) void flush();
      else asked.current = next;
    },
    [flush],
  );

  const save = useCallback(async () => {
    setSaving(true);
    setProblem("");
    try {
      if (!(await flush()) && sent.current !== wanted.current) return;
      saveKey.current ??= crypto.randomUUID();
      const saved = await api.save(id, version.current, saveKey.current);
      saveKey.current = null;
      setRevisions((list) => [...list.filter((row) => row.revision !== saved.revision.revision), saved.revision]);
    } catch (error) {
      refuse(error, wanted.current);
      if (error instanceof Away) setProblem("Not saved yet: the server cannot be reached. Press Save again; it is saved once.");
    } finally {
      setSaving(false);
    }
  }, [flush, id, refuse]);

  const settle = useCallback(
    (next: Content) => {
      if (!clash) return;
      if (clash.body.theirs_version) version.current = clash.body.theirs_version;
      if (clash.kind === "revision") rebase.current = clash.body.theirs_revision;
      held.current = false;
      wanted.current = next;
      sent.current = clash.kind === "draft" && clash.body.theirs ? clash.body.theirs : sent.current;
      if (same(wanted.current, sent.current) && rebase.current === undefined) rebase.current = priced.draft.base_revision;
      setContent(next);
      setClash(null);
      void flush();
    },
    [clash, flush, priced.draft.base_revision],
  );

  const keepMine = useCallback(() => settle(wanted.current), [settle]);
  const takeTheirs = useCallback(() => clash?.body.theirs && settle(clash.body.theirs), [clash, settle]);

  // Closing the page: whatever has not gone out yet goes out with the page.
  useEffect(() => {
    const leave = (event: Event) => {
      if (sent.current === wanted.current || held.current) return;
      void api.storeDraft(id, { version: version.current, content: wanted.current }, true).catch(() => undefined);
      if (event.type === "beforeunload") event.preventDefault();
    };
    window.addEventListener("pagehide", leave);
    const warn = (event: BeforeUnloadEvent) => offline && leave(event);
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("beforeunload", warn);
      window.clearTimeout(timer.current);
    };
  }, [id, offline]);

  useEffect(() => {
    const online = () => void flushRef.current();
    window.addEventListener("online", online);
    return () => window.removeEventListener("online", online);
  }, []);

  return { content, priced, stale: pending, offline, problem, clash, saving, revisions, panel, setPanel, change, save, keepMine, takeTheirs };
}
