import styled from "styled-components";
import type { FrozenRevision } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Part, Small } from "../../shared/parts";
import { DescentDrawing } from "../drawing/DescentDrawing";

const Section = styled.section`
  h2 {
    font-size: 17px;
    font-weight: 650;
    margin: 22px 0 6px;
  }
  td {
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: baseline;
  }
  td:last-child {
    text-align: right;
    white-space: nowrap;
  }
  tr.total td {
    border: 0;
    border-top: 1.4px solid var(--ink);
    font-weight: 700;
    padding: 8px 0 6px;
    font-size: 17px;
  }
  tr.total td:last-child {
    font-size: 30px;
  }
  tr.limit td {
    font-weight: 650;
  }
  .minutes {
    display: flex;
    flex-wrap: wrap;
    gap: 0 16px;
    justify-content: space-between;
    margin-bottom: 6px;
  }
  @media print {
    break-inside: avoid;
  }
`;

/** One scope of a saved revision, as it was shown: why, the descent, the lines, and what could happen. */
export function FrozenScope({ scope, letter }: { scope: FrozenRevision["scopes"][number]; letter?: string }) {
  const { format } = useSession();
  const shown = scope.page;
  const { hours, plan, price } = scope.answer;
  return (
    <Section>
      <h2>
        {letter && `${letter}  `}
        {scope.name || shown.title}
      </h2>
      <p>{shown.explanation?.short}</p>
      {shown.descent && (
        <DescentDrawing descent={shown.descent} active={null} onActive={() => undefined} height={170} />
      )}
      <Small as="p" className="minutes">
        <span>
          {format.minutes(plan.minutes.remove)} min off, {format.minutes(plan.minutes.work)} work,{" "}
          {format.minutes(plan.minutes.refit)} on, {format.minutes(plan.minutes.house)} receiving, checks, road test
        </span>
        <span>
          half of such jobs within {format.hours(hours.p50)} h, 80 of 100 within {format.hours(hours.p80)} h
        </span>
      </Small>
      <table>
        <tbody>
          {price?.lines.map((line, i) => (
            <tr key={`${i}-${line.label}`}>
              <td>
                {line.label} {line.part && line.part !== line.label && <Part>{line.part}</Part>} <Each line={line} />
              </td>
              <td>{format.money(line.cents)}</td>
            </tr>
          ))}
          <tr className="total">
            <td>{price?.incomplete ? "Total so far: a part has no price yet" : "Total"}</td>
            <td>{format.moneyWithSign(scope.total_cents)}</td>
          </tr>
          {shown.trouble?.allowance.slice(0, 3).map((row) => (
            <tr key={row.broken}>
              <td>
                {row.broken === 1 ? "If a plug breaks" : `If ${row.broken} plugs break`}{" "}
                <Small>{format.oneIn(row.chance)} such jobs</Small>
              </td>
              <td>{format.signed(row.extra_cents)}</td>
            </tr>
          ))}
          {shown.trouble?.likely_cents != null && (
            <tr>
              <td>
                Likely total{" "}
                <Small>trouble in {Math.round((1 - shown.trouble.no_trouble) * 100)} of 100 such jobs</Small>
              </td>
              <td>{format.money(shown.trouble.likely_cents)}</td>
            </tr>
          )}
          {shown.trouble && (
            <tr className="limit">
              <td>Not above, without a call</td>
              <td>{format.moneyWithSign(shown.trouble.not_above_cents)}</td>
            </tr>
          )}
        </tbody>
      </table>
    </Section>
  );
}

function Each({ line }: { line: NonNullable<FrozenRevision["scopes"][number]["answer"]["price"]>["lines"][number] }) {
  const { format } = useSession();
  if (line.kind === "labor")
    return <Small>{`${format.hours(line.quantity)} h × ${format.money(line.unit_cents)}`}</Small>;
  return line.quantity === 1 ? null : <Small>{`${line.quantity} × ${format.money(line.unit_cents)}`}</Small>;
}
