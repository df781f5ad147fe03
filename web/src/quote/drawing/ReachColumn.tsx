import { memo, useMemo } from "react";
import styled from "styled-components";
import type { Finding, Fitting, Scope, Sheet } from "../../api/client";
import { Asked, Heading, KeyHint, Small, Unseen } from "../../shared/parts";
import { LayerList } from "../panels/LayerList";
import { PanelBar } from "../panels/PanelBar";
import type { Past } from "../vehicle/plugPasts";
import { PartsPanel } from "../panels/PartsPanel";
import type { Panel } from "../panels/panels";
import { ReachDrawing } from "./ReachDrawing";
import { RoutesPanel } from "../panels/RoutesPanel";
import type { ScopeEdits } from "../scopes/scopeEdits";
import { TroublePanel } from "../panels/TroublePanel";
import { WorkChips } from "../scopes/WorkChips";

/** The panel below the drawing takes the height that is left. */
const Column = styled.section`
  @media (min-width: 1101px) {
    display: flex;
    flex-direction: column;
    min-height: 0;
    & > * {
      flex: none;
    }
  }
`;

interface Props {
  sheet: Sheet;
  /** What the engine offers, the same object while the quote is open. */
  offers: Sheet["offers"];
  /** Cylinders whose plugs have a past of their own. */
  pasts?: Record<string, Past>;
  /** What earlier visits found on the car. */
  findings: Finding[];
  fittings: Fitting[];
  /** Trouble with the soaks compared, once it is there. */
  compared?: Sheet["trouble"];
  scope: Scope;
  stale: boolean;
  writes: boolean;
  edits: ScopeEdits;
  panel: Panel;
  onPanel: (panel: Panel) => void;
  /** The step or target looked at, lit on the drawing and in the list. */
  active: string | null;
  onActive: (ref: string | null, label?: string) => void;
  onLayer: (step: string) => void;
  looked: string | null;
  onLook: (label: string | null) => void;
}

/** Left: the engine from above, the work to choose, and the one panel. */
export const ReachColumn = memo(function ReachColumn({
  sheet,
  pasts,
  findings,
  fittings,
  compared,
  offers,
  scope,
  stale,
  writes,
  edits,
  panel,
  onPanel,
  active,
  onActive,
  onLayer,
  looked,
  onLook,
}: Props) {
  const numbers = sheet.reach.cylinders.map((cylinder) => cylinder.number);
  const inJob = useMemo(
    () => sheet.reach.cylinders.filter((cylinder) => cylinder.chosen).map((cylinder) => cylinder.number),
    [sheet],
  );
  const lifted = useMemo(
    () => sheet.layers.filter((layer) => layer.step === active).map((layer) => layer.number),
    [sheet, active],
  );
  const open = !sheet.estimate || (panel === "trouble" && !sheet.trouble) ? "layers" : panel;

  return (
    <Column>
      <Heading>
        <span>What lies over each cylinder</span>
        <Small style={{ whiteSpace: "nowrap" }}>hours alone</Small>
        <Small style={{ whiteSpace: "nowrap" }}>
          <KeyHint>{digits(numbers.length)}</KeyHint>{" "}
          <Asked onPress={edits.toggleAll} isDisabled={!writes}>
            all <Unseen>cylinders, or none</Unseen> <KeyHint>A</KeyHint>
          </Asked>
        </Small>
      </Heading>
      <ReachDrawing
        reach={sheet.reach}
        pasts={pasts}
        findings={findings}
        fittings={fittings}
        chosen={scope.cylinders}
        stale={stale}
        lifted={lifted}
        onPress={edits.press}
        disabled={!writes}
      />
      <WorkChips offers={offers} works={scope.works} extras={scope.extras} writes={writes} edits={edits} />
      <PanelBar open={open} job={Boolean(sheet.estimate)} trouble={Boolean(sheet.trouble)} onPanel={onPanel} />
      {open === "layers" && (
        <LayerList
          layers={sheet.layers}
          cautions={sheet.cautions}
          tasks={sheet.tasks}
          estimate={sheet.estimate}
          active={active}
          chosen={inJob}
          onActive={onActive}
          onAsk={sheet.tasks && onLayer}
        />
      )}
      {open === "trouble" && sheet.trouble && (
        <TroublePanel
          trouble={compared ?? sheet.trouble}
          soak={(sheet.soak?.in_force ?? scope.soak ?? "none") as NonNullable<Scope["soak"]>}
          stale={stale}
          onSoak={writes ? edits.soak : undefined}
        />
      )}
      {open === "routes" && sheet.routes && (
        <RoutesPanel
          decisions={sheet.routes}
          stale={stale}
          looked={looked}
          onLook={onLook}
          onPins={writes ? edits.pin : undefined}
        />
      )}
      {open === "parts" && sheet.parts && (
        <PartsPanel
          parts={sheet.parts}
          grades={sheet.grades ?? []}
          onPlug={writes && !stale ? edits.plug : undefined}
        />
      )}
    </Column>
  );
});

/** The digits that choose cylinders. */
function digits(cylinders: number): string {
  if (cylinders === 1) return "1";
  return cylinders > 9 ? "1–9, 0" : `1–${cylinders}`;
}
