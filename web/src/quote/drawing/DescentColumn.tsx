import { memo } from "react";
import styled from "styled-components";
import type { Bundle, Descent, Estimate, Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Heading, Notice, Small } from "../../shared/parts";
import { useLatest } from "../../shared/useLatest";
import { DescentDrawing } from "./DescentDrawing";
import { Explanation } from "../ledger/Explanation";
import { ProblemNotice } from "../revision/ProblemNotice";
import { NearTie } from "../panels/NearTie";
import { RouteLine } from "../panels/RouteLine";
import type { ScopeEdits } from "../scopes/scopeEdits";
import type { Lacking } from "../scopes/works";
import { SpreadDrawing } from "./SpreadDrawing";
import { WhileOpen } from "../panels/WhileOpen";

const Told = styled.p`
  min-height: 21px;
  font-size: 13px;
  color: var(--second);
`;

interface Props {
  sheet: Sheet;
  scope: Scope;
  stale: boolean;
  writes: boolean;
  edits: ScopeEdits;
  /** What is said while there is nothing to draw. */
  lack: Lacking;
  /** Another descent to lay over this one, and what it is. */
  over: { descent?: Descent | null; label: string };
  active: string | null;
  told: string;
  onActive: (ref: string | null, label?: string) => void;
  onRoutes: () => void;
}

/** Right: how the job runs, how sure that is, what else is nearly free, and why it costs this. */
export const DescentColumn = memo(function DescentColumn(props: Props) {
  const { sheet, scope, stale, writes, edits, lack, over, active, told, onActive, onRoutes } = props;
  const { format } = useSession();
  const { estimate, descent, spread, trouble, problem } = sheet;
  const pinned = Object.keys({ ...scope.pins?.ways, ...scope.pins?.choices }).length > 0;
  const letGo = writes ? () => edits.pin({}) : undefined;
  const add = useLatest((bundle: Bundle) => {
    if (!stale) edits.add(bundle);
  });

  if (!estimate || !descent || !spread)
    return (
      <section>
        {problem ? (
          <ProblemNotice problem={problem} pinned={pinned} onLetGo={letGo} />
        ) : (
          <Notice>
            <p>{lack.told}</p>
            <p>
              {lack.how} The figures under the cylinders are the hours for{" "}
              {scope.works.length ? "the work chosen" : "plugs"}, done alone.
            </p>
          </Notice>
        )}
      </section>
    );

  return (
    <section>
      <Heading>
        <span>Down, work, and back up</span>
        <Small>minutes to scale{over.label && ` · dashed: ${over.label}`}</Small>
      </Heading>
      <DescentDrawing
        descent={descent}
        over={over.descent}
        active={active}
        onActive={onActive}
        extra={trouble?.longest_extra_minutes}
      />
      {estimate.plan.proven ? null : (
        <Small as="p">
          This engine is too tangled to prove the shortest way: this one is at most{" "}
          {format.minutes(estimate.plan.gap_minutes ?? 0)} min longer.
        </Small>
      )}
      <Told aria-live="polite">{told || inMinutes(estimate.plan, format.minutes)}</Told>
      <RouteLine
        decisions={sheet.routes ?? []}
        pinned={(sheet.pinned ?? false) && !sheet.tie_taken}
        onOpen={onRoutes}
        onLetGo={letGo}
      />
      <NearTie
        ties={estimate.plan.near_ties}
        taken={sheet.tie_taken ?? null}
        onPins={writes && !stale ? edits.pin : undefined}
        onLeave={writes && !stale ? edits.leaveTies : undefined}
      />
      <Heading>
        <span>How sure</span>
        <Small>
          {trouble
            ? `no trouble on the way: ${Math.round(trouble.no_trouble * 100)} of 100 such jobs`
            : `half of such jobs within ${format.hours(estimate.hours.p50)} h`}
        </Small>
      </Heading>
      <SpreadDrawing spread={spread} hours={estimate.hours} trouble={trouble} />
      <WhileOpen bundles={sheet.while_open ?? []} stale={stale} onAdd={writes ? add : undefined} />
      {sheet.explanation && <Explanation text={sheet.explanation} stale={stale} />}
    </section>
  );
});

/** The descent in figures, as they stand in the layer list and the answer. */
function inMinutes({ minutes, waits }: Estimate["plan"], say: (minutes: number) => string): string {
  const kinds = `${say(minutes.remove)} min off, ${say(minutes.work)} work, ${say(minutes.refit)} on`;
  const rest = waits > 0 ? `, and ${say(waits)} waiting` : "";
  return `${kinds}, ${say(minutes.house)} house tasks${rest}`;
}
