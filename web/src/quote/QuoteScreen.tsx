import { useCallback, useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import styled from "styled-components";
import type { QuotePage, Sheet } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Notice } from "../shared/parts";
import { ConflictDialog } from "./revision/ConflictDialog";
import { DescentColumn } from "./drawing/DescentColumn";
import { LedgerPage } from "./ledger/LedgerPage";
import { PriceNotice } from "./revision/PriceNotice";
import { ReachColumn } from "./drawing/ReachColumn";
import { RevisionNotice } from "./revision/RevisionNotice";
import { RunningBalance } from "./ledger/RunningBalance";
import { laidOver, lookedAt } from "./panels/routes";
import { SaveBar } from "./ledger/SaveBar";
import { ScopeHead } from "./scopes/ScopeHead";
import { SideBySide } from "./scopes/SideBySide";
import { scopeEdits } from "./scopes/scopeEdits";
import { useAfterSave } from "./useAfterSave";
import { useQuoteKeys } from "./useQuoteKeys";
import { useWorkingCopy } from "./useWorkingCopy";
import { Variants } from "./vehicle/Variants";
import { VehicleStrip } from "./vehicle/VehicleStrip";
import { WhyLayer } from "./ledger/Why";
import { activeScope, lacking } from "./scopes/works";
import { useOlderMark } from "../shared/olderFigures";
import { useAfterPaint } from "../shared/useAfterPaint";
import { useWhen, WhenDialog, WhenLine } from "../day/When";
import { useSettled } from "../shared/useSettled";
import { useLatest } from "../shared/useLatest";
import { whenOpened } from "../shared/whenOpened";
import { scrolls } from "../shared/scrolls";

const AdjustDialog = whenOpened(async () => (await import("./ledger/AdjustDialog")).AdjustDialog);
const HandLinesDialog = whenOpened(async () => (await import("./ledger/HandLinesDialog")).HandLinesDialog);

const SchoolsDialog = whenOpened(async () => (await import("./panels/SchoolsDialog")).SchoolsDialog);

const Screen = styled.main`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 322px;
  @media (max-width: 1100px) {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Left = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
`;
const Middle = styled.div`
  flex: 1;
  min-height: 0;
  ${scrolls}
  display: grid;
  grid-template-columns: minmax(0, 45fr) minmax(0, 52fr);
  @media (min-width: 1101px) {
    grid-template-rows: minmax(0, 1fr);
  }
  & > section {
    padding: 10px 18px 12px;
    min-width: 0;
  }
  & > section + section {
    border-left: 1px solid var(--rule);
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 48fr) minmax(0, 49fr);
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
    & > section + section {
      border-left: 0;
      border-top: 1px solid var(--rule);
    }
  }
`;

/** The Quote page: what lies over each cylinder, how the job runs, and what it costs. */
export function QuoteScreen({ page }: { page: QuotePage }) {
  const { account } = useSession();
  const navigate = useNavigate();
  const copy = useWorkingCopy(page);
  const { content, priced, figured, stale, panel, setPanel, change } = copy;
  const { sheet } = priced;
  // The balance is what was asked for: it is painted first, and what explains it after that.
  const figures = useMemo(() => ({ ...priced, lack: lacking(activeScope(figured)) }), [priced, figured]);
  const shown = useAfterPaint(figures, copy.balance);
  const behind = stale || shown !== figures;
  useOlderMark(behind);
  const scope = activeScope(content);
  const title = scope.name || (copy.balance ?? sheet).title || "New scope";
  const writes = account.role !== "technician";
  const latest = copy.revisions.at(-1);

  const [active, setActive] = useState<string | null>(null);
  const [told, setTold] = useState("");
  const [looked, setLooked] = useState<string | null>(null);
  const [layer, setLayer] = useState<string | null>(null);
  const [adjusting, setAdjusting] = useState(false);
  const [query, setQuery] = useSearchParams();
  const named = query.get("line");
  const [adding, setAdding] = useState(named !== null);
  const light = useCallback((ref: string | null, label?: string) => {
    setActive(ref);
    setTold(label ?? "");
  }, []);

  const cylinders = useMemo(() => page.sheet.reach.cylinders.map((cylinder) => cylinder.number), [page]);
  const edits = useMemo(() => scopeEdits(change, cylinders, writes), [change, cylinders, writes]);
  const paper = latest && `/api/quotes/${page.quote.id}/print.pdf?revision=${latest.revision}`;
  const print = useAfterSave(copy.saving, () => {
    if (paper) window.open(paper, "_blank", "noopener");
  });
  const offer = useAfterSave(copy.saving, () => {
    if (latest) void navigate(`/quotes/${page.quote.id}/yes`);
  });
  const beside = panel === "beside" && content.scopes.length > 1;
  const turnBeside = useCallback(() => setPanel(beside ? "layers" : "beside"), [beside, setPanel]);
  const adjust = useLatest(() => {
    if (writes && !stale) setAdjusting(true);
  });
  const addLines = useLatest(() => {
    if (writes) setAdding(true);
  });
  const [schools, setSchools] = useState(false);
  const seeSchools = useCallback(() => setSchools(true), []);
  const [timing, setTiming] = useState(() => query.has("when"));
  const seeTimes = useCallback(() => setTiming(true), []);
  const settled = useSettled(copy.figured, 1_200);
  const times = useWhen(page.quote.id, settled, {}, Boolean(sheet.estimate) && !stale && settled === copy.figured);
  const cooling = sheet.cooling_minutes;
  const when = useMemo(
    () => times.data && <WhenLine page={times.data} cooling={cooling} onAsk={seeTimes} />,
    [times.data, cooling, seeTimes],
  );
  const openTrouble = useCallback(() => setPanel("trouble"), [setPanel]);
  useQuoteKeys({
    sheet,
    stale,
    edits,
    setPanel,
    print,
    offer,
    beside,
    adjust,
    addLines,
    seeSchools,
    seeTimes,
    scopes: content.scopes.length,
    pinned: Boolean(scope.pins) && sheet.pinned !== false,
    save: copy.save,
  });

  const route = panel === "routes" ? lookedAt(shown.sheet.routes, looked) : undefined;
  const over = useMemo(() => laidOver(route, shown.others, shown.sheet), [route, shown]);
  const openRoutes = useCallback(() => setPanel("routes"), [setPanel]);

  return (
    <Screen>
      <Left>
        <VehicleStrip
          page={page}
          content={content}
          resolved={shown.resolved}
          saved={savedWords(latest?.revision, page.moved_since)}
          problem={copy.problem}
          onChange={writes ? change : undefined}
          revisions={copy.revisions}
        />
        <Variants page={page} questions={shown.resolved.variants} onChange={writes ? change : undefined} />
        <RevisionNotice page={page} writes={writes} />
        {copy.priceChange && <PriceNotice change={copy.priceChange} onClose={copy.closeNotice} />}
        {(copy.offline || copy.problem) && (
          <Notice role="alert" style={{ margin: "10px 18px 0" }}>
            <p>
              {copy.offline
                ? "The server does not answer. What you enter is kept here and goes out when it is back."
                : copy.problem}
            </p>
          </Notice>
        )}
        {beside ? (
          <SideBySide
            rows={copy.figures?.beside}
            ahead={copy.figures?.ahead}
            onAssume={writes ? edits.ahead : undefined}
            active={content.active}
            stale={stale}
            onGo={edits.goTo}
            onClose={turnBeside}
          />
        ) : (
          <Middle>
            <ReachColumn
              sheet={shown.sheet}
              pasts={shown.resolved.history.cylinders}
              findings={page.findings}
              fittings={page.fittings}
              compared={copy.figures?.trouble}
              offers={page.sheet.offers}
              scope={scope}
              stale={behind}
              writes={writes}
              edits={edits}
              panel={panel}
              onPanel={setPanel}
              active={active}
              onActive={light}
              onLayer={setLayer}
              looked={route?.label ?? null}
              onLook={setLooked}
            />
            <DescentColumn
              sheet={shown.sheet}
              scope={scope}
              stale={behind}
              writes={writes}
              edits={edits}
              lack={shown.lack}
              over={over}
              active={active}
              told={told}
              onActive={light}
              onRoutes={openRoutes}
            />
          </Middle>
        )}
      </Left>
      <LedgerPage
        balance={copy.balance}
        owedStale={copy.owedStale}
        sheet={shown.sheet}
        stale={behind}
        onTrouble={openTrouble}
        head={
          <ScopeHead
            title={title}
            index={content.active}
            count={content.scopes.length}
            writes={writes}
            edits={edits}
            beside={beside}
            onBeside={turnBeside}
          />
        }
        hours={scope.hours}
        lacking={shown.lack.choose}
        onAdjust={writes ? adjust : undefined}
        onLines={writes ? addLines : undefined}
        onSchools={seeSchools}
        when={stale ? undefined : when}
        onCharge={writes ? edits.charge : undefined}
        actions={
          <SaveBar
            saving={copy.saving}
            canSave={writes && !copy.saving && Boolean(sheet.estimate)}
            saved={Boolean(latest)}
            onSave={copy.save}
            onOffer={offer}
            onPrint={print}
          />
        }
      />
      <RunningBalance balance={copy.balance} title={title} />
      {layer && sheet.tasks && <WhyLayer step={layer} sheet={sheet} onClose={() => setLayer(null)} />}
      {adjusting && sheet.estimate && (
        <AdjustDialog
          estimate={sheet.estimate}
          scope={scope}
          reference={sheet.reference_hours}
          onAdjust={edits.adjust}
          onClose={() => setAdjusting(false)}
        />
      )}
      {adding && writes && (
        <HandLinesDialog
          lines={scope.lines ?? []}
          rateCents={rateOf(sheet)}
          named={named ?? undefined}
          onLines={edits.lines}
          onClose={() => {
            setAdding(false);
            if (named !== null) setQuery({}, { replace: true });
          }}
        />
      )}
      {schools && (
        <SchoolsDialog
          schools={shown.resolved.schools}
          given={content.schools ?? {}}
          onSchools={writes ? edits.schools : undefined}
          onClose={() => setSchools(false)}
        />
      )}
      {timing && <WhenDialog quote={page.quote.id} of={settled} writes={writes} onClose={() => setTiming(false)} />}
      {copy.clash && (
        <ConflictDialog clash={copy.clash} yours={content} onMine={copy.keepMine} onTheirs={copy.takeTheirs} />
      )}
    </Screen>
  );
}

/** What an hour costs on this quote; null where nothing is priced yet. */
const rateOf = (sheet: Sheet): number | null =>
  sheet.estimate?.price?.lines.find((line) => line.kind === "labor")?.unit_cents ?? null;

/** What is saved, and whether it comes to something else by now. */
const savedWords = (latest?: number, movedSince?: number | null): string => {
  if (latest === undefined) return "not saved yet";
  return movedSince === latest ? `prices changed since revision ${latest}` : `revision ${latest} saved`;
};
