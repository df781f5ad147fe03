import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import {
  api,
  type Balance,
  type Conflict,
  type Content,
  type PanelFigures,
  type Priced,
  type QuotePage,
  type Saved,
} from "../api/client";
import { failureOf } from "../working/failure";
import { useWorking } from "../working/useWorking";
import { type Clash as AnyClash, type Failure, type PriceChange, same, stale, start } from "../working/workingCopy";
import { balanceOf } from "./ledger/balance";
import { ON_DEMAND, type Panel } from "./panels/panels";

export type Clash = AnyClash<Content>;

export interface WorkingCopy {
  content: Content;
  priced: Priced;
  /** What those figures are of. */
  figured: Content;
  /** True while the figures on the page belong to an older selection. */
  stale: boolean;
  /** What is owed, which is known before the other figures; null while there is nothing to charge for. */
  balance: Balance | null;
  /** True while what is owed belongs to an older selection. */
  owedStale: boolean;
  offline: boolean;
  problem: string;
  clash: Clash | null;
  priceChange: PriceChange | null;
  saving: boolean;
  revisions: QuotePage["revisions"];
  panel: Panel;
  /** What the open panel shows beyond the page, once it is there for the copy as stored. */
  figures?: PanelFigures;
  setPanel: (panel: Panel) => void;
  change: (next: (content: Content) => Content) => void;
  save: () => void;
  keepMine: () => void;
  takeTheirs: () => void;
  closeNotice: () => void;
}

/** What kept a request from being carried out, as the quote's working copy takes it. */
export const failure = (error: unknown): Failure<Content> =>
  failureOf(error, ({ code, message, body }) => conflict(code, message, body));

function conflict(code: string, message: string, body: Conflict): Failure<Content> | null {
  if (code === "price_change")
    return {
      kind: "price",
      change: { message, changed: body.changed ?? [], shown: body.shown_cents ?? null, now: body.now_cents ?? null },
    };
  const kind = ({ draft_conflict: "draft", revision_conflict: "revision" } as const)[code];
  if (!kind || !body.theirs) return null;
  return {
    kind: "clash",
    clash: {
      kind,
      message,
      theirs: body.theirs,
      version: body.theirs_version,
      revision: body.theirs_revision,
      by: body.theirs_by,
      at: body.theirs_at,
    },
  };
}

/** The advisor's working copy of a quote: stored and priced with every change, saved at the price on the page. */
export function useWorkingCopy(page: QuotePage): WorkingCopy {
  const id = page.quote.id;
  const [revisions, setRevisions] = useState(page.revisions);
  const [panel, setPanel] = useState<Panel>("layers");
  // What the newest answer said before the rest of it; never older than the figures of the page.
  const [first, setFirst] = useState<{ of: Content; balance: Balance } | null>(null);
  const server = useMemo(
    () => ({
      store: async (version: number, content: Content, base_revision: number | undefined, last: boolean) => {
        const atOnce = (balance: Balance | null) => setFirst(balance && { of: content, balance });
        const answer = await api.storeDraft(id, { version, content, base_revision }, { keepalive: last, atOnce });
        return { answer, version: answer.draft.version };
      },
      save: (version: number, answer: Priced, key: string) => api.save(id, version, answer.priced_with, key),
      failure,
    }),
    [id],
  );
  const keep = useCallback(
    (saved: Saved) =>
      setRevisions((list) => [...list.filter((row) => row.revision !== saved.revision.revision), saved.revision]),
    [],
  );
  const initial = () =>
    start<Content, Priced>(page.draft.content, page.draft.version, {
      draft: page.draft,
      sheet: page.sheet,
      others: page.others,
      balance: null,
      resolved: page.resolved,
      priced_with: page.priced_with,
    });
  const { state, send, edit } = useWorking<Content, Priced, Saved>(initial, server, keep);
  const waiting = stale(state);
  const newest = waiting ? first : null;
  const own = useMemo(() => balanceOf(state.answer.sheet), [state.answer]);
  // The same object as long as it says the same.
  const owed = useMemo(() => (first && same(first.balance, own) ? first.balance : own), [first, own]);
  const figures = useQuery({
    queryKey: ["panel", id, panel, state.version],
    queryFn: () => api.panel(id, panel as "trouble" | "beside"),
    enabled: ON_DEMAND.includes(panel) && !waiting,
    placeholderData: (before) => before,
    staleTime: 30_000,
    gcTime: 60_000,
  });

  const save = useCallback(() => send({ type: "saveAsked", key: crypto.randomUUID() }), [send]);
  const keepMine = useCallback(() => send({ type: "mineKept" }), [send]);
  const takeTheirs = useCallback(() => send({ type: "theirsTaken" }), [send]);
  const closeNotice = useCallback(() => send({ type: "noticeClosed" }), [send]);
  return {
    content: state.content,
    priced: state.answer,
    figured: state.figured,
    stale: waiting,
    balance: newest?.balance ?? owed,
    owedStale: waiting && (state.refigure || !newest || !same(newest.of, state.content)),
    offline: state.away,
    problem: state.problem,
    clash: state.clash,
    priceChange: state.priceChange,
    saving: state.wish !== null,
    revisions,
    panel,
    figures: ON_DEMAND.includes(panel) ? figures.data : undefined,
    setPanel,
    change: edit,
    save,
    keepMine,
    takeTheirs,
    closeNotice,
  };
}
