import { useQueryClient } from "@tanstack/react-query";
import { type CSSProperties, useCallback, useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import type { WorkshopDraft } from "../api/client";
import { DescentDrawing } from "../quote/drawing/DescentDrawing";
import { ReachDrawing } from "../quote/drawing/ReachDrawing";
import { useSession } from "../session/SessionGate";
import { Asked, Button, Heading, KeyHint, Mono, Notice, Small } from "../shared/parts";
import { useLatest } from "../shared/useLatest";
import { Columns, Margin, Matter, Spread } from "../shared/Spread";
import { ClashDialog } from "./ClashDialog";
import { DropDialog } from "./DropDialog";
import { FaultList } from "./FaultList";
import { KeepDialog } from "./KeepDialog";
import { LayerTable } from "./LayerTable";
import { LiesOver } from "./LiesOver";
import { Outline } from "./Outline";
import { Stands } from "./Stands";
import { TheEngine, type Unfold, Unfolded } from "./Unfolded";
import { proper } from "./edits";
import { useEngineDraft } from "./useEngineDraft";
import { useWorkshopKeys } from "./useWorkshopKeys";
import { WorkTable } from "./WorkTable";

const Drawing = styled.div`
  position: relative;
  max-width: 520px;
  margin: 6px auto 0;
`;
const Parts = styled(Tabs)`
  [role="tablist"] {
    display: flex;
    gap: 18px;
    border-bottom: 1px solid var(--strong);
    margin-bottom: 6px;
  }
  [role="tab"] {
    padding: 4px 0 6px;
    cursor: pointer;
    color: var(--second);
  }
  [role="tab"][aria-selected="true"] {
    color: var(--ink);
    font-weight: 650;
    box-shadow: inset 0 -2.4px var(--ink);
  }
`;
/** The workshop: the reach drawing is the editor. Drawing, descent and test prices follow every key. */
export function Workshop({ draft: opened }: { draft: WorkshopDraft }) {
  const { account } = useSession();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const home = `/engines/${encodeURIComponent(opened.code)}`;
  const draft = useEngineDraft(opened, () => {
    for (const key of ["engines", "engine", "workshop", "drafts"]) void queries.invalidateQueries({ queryKey: [key] });
    void navigate(home);
  });
  const { profile, look, drawn, act } = draft;
  const [chosen, setChosen] = useState<string | null>(null);
  const selected = profile.steps.some((step) => step.id === chosen) ? chosen : null;
  const [unfold, setUnfold] = useState<Unfold | null>(null);
  const unfoldLayer = useCallback((id: string) => setUnfold({ list: "steps", id }), []);
  const [asked, setAsked] = useState<"keep" | "drop" | null>(null);
  const [focusName, setFocusName] = useState(0);
  const [active, setActive] = useState<string | null>(null);
  const page = drawn.page;
  const over = draft.over.find((row) => row.step === selected)?.cylinders ?? [];
  const label = profile.steps.find((step) => step.id === selected)?.label;

  const layOver = useLatest((cylinders: number[]) => {
    if (selected) act({ do: "lay", step: selected, cylinders });
  });
  const press = useLatest((cylinder: number) => {
    if (selected) act({ do: "press", step: selected, cylinder });
  });
  const add = (name: string) => {
    const all = profile.cylinders.map((cylinder) => cylinder.number);
    const known = profile.steps.map((step) => step.id);
    act({ do: "add", label: name, cylinders: over.length > 0 ? over : all });
    setAwaited(known);
  };
  // The layer that was just added is in hand once it is there.
  const [awaited, setAwaited] = useState<string[] | null>(null);
  const fresh = awaited && profile.steps.find((step) => !awaited.includes(step.id));
  if (fresh) {
    setAwaited(null);
    setChosen(fresh.id);
  }
  const fork = () => {
    const layers = profile.steps.filter((step) => !step.cylinder);
    const at = layers.findIndex((step) => step.id === selected);
    const other = at < 0 ? undefined : (layers[at + 1] ?? layers[at - 1]);
    if (selected && other) act({ do: "fork", step: selected, with: other.id });
  };
  const isSound = look.faults.length === 0;
  useWorkshopKeys({
    cylinders: profile.cylinders.map((cylinder) => cylinder.number),
    press,
    another: () => setFocusName((n) => n + 1),
    fork,
    undo: draft.undo,
    redo: draft.redo,
    keep: () => isSound && setAsked("keep"),
  });
  // The layer in hand has an outline of its own.
  const pointed = active === selected ? null : active;
  const lifted = page?.layers.filter((layer) => layer.step === pointed).map((layer) => layer.number) ?? [];

  return (
    <Spread>
      <Matter>
        <header>
          <h1 style={{ fontSize: 22 }}>{profile.name || opened.code}</h1>
          <Mono>{opened.code}</Mono>
          <Small role="status">
            {opened.base_revision === null ? "not in the library yet" : `draft of revision ${opened.base_revision + 1}`}
            , {draft.isAway ? "no connection: kept here until there is one" : "kept as you type"}
            {opened.began === "pattern" && " · began as a pattern"}
          </Small>
        </header>
        {draft.problem && (
          <Notice role="alert" style={{ marginBottom: 10 }}>
            <p>{draft.problem}</p>
          </Notice>
        )}
        {profile.provisional && (
          <Notice style={{ marginBottom: 10 }}>
            <p>
              Provisional: sketched on the phone, its hours wider.{" "}
              <Asked onPress={() => draft.type([], proper(profile))}>It is drawn properly now</Asked>
            </p>
          </Notice>
        )}
        <FaultList draft={draft} onUnfold={setUnfold} />
        <Columns style={{ "--left": "40fr", "--right": "54fr" } as CSSProperties}>
          <div>
            <Heading>
              <span>What lies over which cylinder</span>
              <Small>{label ?? "choose a layer"}</Small>
            </Heading>
            <LiesOver cylinders={profile.cylinders} hasLayer={selected !== null} onLay={layOver} />
            {page && (
              <Drawing>
                <ReachDrawing
                  reach={page.reach}
                  chosen={over}
                  stale={draft.isStale}
                  lifted={lifted}
                  onPress={selected ? press : undefined}
                />
                <Outline reach={page.reach} over={over} />
              </Drawing>
            )}
            {page?.descent && (
              <>
                <Heading style={{ marginTop: 12 }}>
                  <span>The deepest: {page.deepest}</span>
                  <Small>minutes to scale</Small>
                </Heading>
                <DescentDrawing descent={page.descent} active={active ?? selected} onActive={setActive} height={150} />
              </>
            )}
          </div>
          <Parts>
            <TabList aria-label="Parts of the profile">
              <Tab id="layers">Layers, from the top down</Tab>
              <Tab id="work">Work</Tab>
              <Tab id="engine">Engine and plug</Tab>
            </TabList>
            {unfold && <Unfolded draft={draft} what={unfold} onClose={() => setUnfold(null)} />}
            <TabPanel id="layers">
              <LayerTable
                draft={draft}
                selected={selected}
                onSelect={setChosen}
                onUnfold={unfoldLayer}
                onAdd={add}
                onFork={fork}
                focusName={focusName}
              />
            </TabPanel>
            <TabPanel id="work">
              <WorkTable draft={draft} onUnfold={(id) => setUnfold({ list: "targets", id })} />
            </TabPanel>
            <TabPanel id="engine">
              <TheEngine draft={draft} />
            </TabPanel>
          </Parts>
        </Columns>
      </Matter>
      <Margin>
        <Stands draft={draft} />
        <div className="end">
          {account.role === "owner" ? (
            <Button $main onPress={() => setAsked("keep")} isDisabled={!isSound} isPending={draft.isSaving}>
              Keep as revision {(opened.base_revision ?? 0) + 1} <KeyHint>S</KeyHint>
            </Button>
          ) : (
            <Small>The owner keeps it as a revision; the draft stays here.</Small>
          )}
          {opened.base_revision !== null && (
            <Link
              to={`/compare?${new URLSearchParams({ a: opened.code, b: opened.code, b_revision: "draft" }).toString()}`}
            >
              Compare
            </Link>
          )}
          <Button onPress={() => setAsked("drop")}>Throw this draft away</Button>
        </div>
      </Margin>
      {asked === "keep" && account.role === "owner" && (
        <KeepDialog
          revision={(opened.base_revision ?? 0) + 1}
          onKeep={(why) => {
            setAsked(null);
            draft.keep(why);
          }}
          onClose={() => setAsked(null)}
        />
      )}
      {asked === "drop" && (
        <DropDialog
          code={opened.code}
          isKept={opened.base_revision !== null}
          onDropped={() => {
            void queries.invalidateQueries({ queryKey: ["drafts"] });
            void navigate("/engines");
          }}
          onClose={() => setAsked(null)}
        />
      )}
      {draft.clash && <ClashDialog draft={draft} clash={draft.clash} />}
    </Spread>
  );
}
