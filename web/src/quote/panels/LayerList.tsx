import { Fragment, memo } from "react";
import styled from "styled-components";
import type { Estimate, Layer, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { Asked, Small, Unseen } from "../../shared/parts";
import { PanelScroll } from "./PanelScroll";

/** As much of the list as the page has room for; the sum stays in sight. */
const Sum = styled.p`
  display: flex;
  font-size: 14px;
  font-weight: 650;
  border-top: 1px solid var(--strong);
  padding: 3px 4px 0;
  span:first-child {
    flex: 1;
  }
  .figure {
    width: 62px;
    text-align: right;
    white-space: nowrap;
  }
`;

const Table = styled.table`
  font-size: 14px;
  line-height: 1.3;
  th {
    font-weight: 400;
    color: var(--second);
    text-align: left;
    font-size: 13px;
    padding: 3px 4px;
    border-bottom: 1px solid var(--strong);
  }
  td {
    padding: 2.5px 4px;
    border-bottom: 1px solid var(--rule);
    vertical-align: baseline;
  }
  th.figure,
  td.figure {
    text-align: right;
    white-space: nowrap;
    width: 62px;
  }
  td.number {
    width: 24px;
    color: var(--second);
    font-size: 13px;
  }
  tr[data-elsewhere] td {
    color: var(--second);
  }
  tr[data-active] td {
    background: var(--sheet);
    box-shadow: inset 0 -2px var(--mark);
  }
  tr.caution td {
    font-size: 13px;
    line-height: 1.25;
    padding-top: 0;
  }
  tr.caution td + td {
    border-left: 3px solid var(--ink);
    padding-left: 8px;
  }
  tr.told td {
    border-bottom: 0;
  }
`;

/** Whose a layer is among the cylinders in the job: nothing when there is one cylinder only. */
export function sharing(over: number[], chosen: number[]): string {
  if (chosen.length < 2) return "";
  const mine = over.filter((number) => chosen.includes(number));
  if (mine.length === chosen.length) return "shared";
  return mine.length === 0 ? "" : `only ${list([...mine].sort((a, b) => a - b))}`;
}

type Cautions = NonNullable<Sheet["cautions"]>;

/** The cautions that stand first at a step or piece of work. */
function cautionsAt(ref: string, cautions: Cautions): string[] {
  return cautions
    .filter((caution) => caution.refs[0] === ref)
    .map((caution) =>
      caution.at.length > 1 ? `${caution.at.length} times in this job: ${caution.text}` : caution.text,
    );
}

/**
 * The cautions of the work itself, with what it is called; those that already stand at a step of that name are not
 * said again.
 */
export function cautionsOfWork(
  tasks: NonNullable<Sheet["tasks"]>,
  cautions: Cautions,
  steps: string[],
): { label: string; text: string }[] {
  const work = tasks.filter((task) => task.kind === "work" && !steps.includes(task.ref));
  return work.flatMap((task) => cautionsAt(task.ref, cautions).map((text) => ({ label: task.label, text })));
}

interface Props {
  layers: Layer[];
  cautions?: Cautions;
  tasks?: Sheet["tasks"];
  estimate?: Estimate;
  active: string | null;
  /** Cylinders in the job: with several, each layer says whose it is. */
  chosen?: number[];
  onActive: (ref: string | null, label?: string) => void;
  /** Asked why a layer comes off. */
  onAsk?: (step: string) => void;
}

/** What comes off, in order, with its minutes; the numbers are those on the drawing. */
export const LayerList = memo(function LayerList({
  layers,
  cautions = [],
  tasks = [],
  estimate,
  active,
  chosen = [],
  onActive,
  onAsk,
}: Props) {
  const { format } = useSession();
  const own = layers.filter((layer) => layer.in_plan);
  const shown = estimate ? own : layers.filter((layer) => layer.cylinder === null);
  const minutes = estimate?.plan.minutes;
  const work = cautionsOfWork(
    tasks,
    cautions,
    own.map((layer) => layer.step),
  );

  return (
    <>
      <PanelScroll $least={120} tabIndex={0} role="region" aria-label="Layers">
        <Table>
          <thead>
            <tr>
              <th colSpan={2}>
                {estimate ? "Off, in this order; back on in reverse" : "What lies over the cylinders"}
              </th>
              <th className="figure">off</th>
              <th className="figure">on</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((layer) => (
              <Fragment key={layer.step}>
                <tr
                  data-active={active === layer.step ? "" : undefined}
                  onPointerEnter={() => onActive(layer.step)}
                  onPointerLeave={() => onActive(null)}
                >
                  <td className="number">{layer.number}</td>
                  <td>
                    {layer.label}
                    {layer.people > 1 && <Small> {layer.people} people</Small>}
                    {estimate && layer.cylinder === null && sharing(layer.over, chosen) && (
                      <Small>
                        {layer.people > 1 ? "," : ""} {sharing(layer.over, chosen)}
                      </Small>
                    )}
                    {layer.zone === "under" && <Small> from beneath</Small>}
                    {!estimate && <Small> over {list(layer.over)}</Small>}
                  </td>
                  <td className="figure">
                    {onAsk && estimate ? (
                      <Asked onPress={() => onAsk(layer.step)}>
                        {format.minutes(layer.off_minutes)} min<Unseen> for {layer.label}: why?</Unseen>
                      </Asked>
                    ) : (
                      `${format.minutes(layer.off_minutes)} min`
                    )}
                  </td>
                  <td className="figure">{format.minutes(layer.on_minutes + layer.closing_minutes)} min</td>
                </tr>
                {estimate && cautionsAt(layer.step, cautions).map((text) => <Caution key={text} text={text} />)}
              </Fragment>
            ))}
            {estimate &&
              work.map(({ label, text }) => (
                <Caution key={`${label}: ${text}`} text={`At ${label.toLowerCase()}: ${text}`} />
              ))}
            {shown.length === 0 && (
              <tr>
                <td colSpan={4}>Nothing has to come off.</td>
              </tr>
            )}
          </tbody>
        </Table>
      </PanelScroll>
      {minutes && (
        <Sum>
          <span>
            Reaching is {format.minutes(minutes.remove + minutes.refit)} of {format.minutes(minutes.total)} min
          </span>
          <span className="figure">{format.minutes(minutes.remove)} min</span>
          <span className="figure">{format.minutes(minutes.refit)} min</span>
        </Sum>
      )}
    </>
  );
});

function Caution({ text }: { text: string }) {
  return (
    <tr className="caution">
      <td />
      <td colSpan={3}>{text}</td>
    </tr>
  );
}
