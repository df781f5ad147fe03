import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import type { Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Small, Strong } from "../../shared/parts";
import { SOAKS } from "./soaks";
import { PanelScroll } from "./PanelScroll";
import { oddsWords } from "../words";

type Trouble = NonNullable<Sheet["trouble"]>;
type Soak = NonNullable<Scope["soak"]>;

const Table = styled.table`
  font-size: 13px;
  line-height: 1.3;
  margin-bottom: 6px;
  th {
    font-weight: 400;
    color: var(--second);
    text-align: right;
    padding: 3px 0 3px 8px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
  }
  td {
    text-align: right;
    padding: 2.5px 0 2.5px 8px;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
  }
  th:first-child,
  td:first-child {
    text-align: left;
    padding-left: 0;
    white-space: normal;
  }
  tr[data-best] td {
    font-weight: 650;
  }
  button {
    border: 1.2px solid var(--ink);
    background: var(--sheet);
    border-radius: 12px;
    padding: 1px 9px;
    cursor: pointer;
    color: var(--ink);
    font-weight: 400;
    white-space: nowrap;
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
`;

/** What the bold row is, by what became of the promise. */
const BOLD = {
  none: "Bold: the least expected price, troubles included.",
  kept: "Bold: the least expected price, troubles included, that meets the promise.",
  missed: "No soak meets the promise. Bold: the first to be ready.",
};

/** Length of the bar says the chance; the figure beside it says it in words. */
const Bar = styled.span`
  display: inline-block;
  height: 8px;
  background: repeating-linear-gradient(45deg, var(--ink) 0 1.4px, transparent 1.4px 4px);
  border: 1px solid var(--ink);
  margin-right: 6px;
  vertical-align: middle;
`;
interface Props {
  trouble: Trouble;
  soak: Soak;
  stale: boolean;
  onSoak?: (soak: Soak) => void;
}

/** What may fight back, what a soak does about it, and what it would cost. */
export function TroublePanel({ trouble, soak, stale, onSoak }: Props) {
  const { format } = useSession();
  const worst = Math.max(...trouble.plugs.map((plug) => plug.broken), 0.0001);
  return (
    <PanelScroll $least={120} aria-busy={stale} tabIndex={0} role="region" aria-label="Trouble">
      {trouble.soaks.length === 0 && trouble.plugs.length > 0 && <Small role="status">Comparing soaks…</Small>}
      {trouble.soaks.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th scope="col">Soak</th>
              <th scope="col">breaks</th>
              <th scope="col">expected</th>
              <th scope="col">ready</th>
            </tr>
          </thead>
          <tbody>
            {trouble.soaks.map((row) => (
              <tr key={row.protocol} data-best={row.protocol === trouble.recommended_soak ? "" : undefined}>
                <td>
                  <ToggleButton
                    isSelected={soak === row.protocol}
                    isDisabled={!onSoak}
                    onChange={() => onSoak?.(row.protocol as Soak)}
                  >
                    {SOAKS[row.protocol]}
                  </ToggleButton>
                </td>
                <td>{format.percent(row.break_chance)}</td>
                <td>{format.money(row.expected_cents)}</td>
                <td>{format.wall(row.ready)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {trouble.soaks.length > 0 && (
        <p>
          <Small>{BOLD[trouble.promise ?? "none"]}</Small>
        </p>
      )}
      <Table>
        <thead>
          <tr>
            <th scope="col">Plug{trouble.plugs.some((plug) => plug.extraction_factor > 1) && ", extraction"}</th>
            <th scope="col">breaks</th>
            <th scope="col">thread</th>
            <th scope="col">stubborn</th>
          </tr>
        </thead>
        <tbody>
          {trouble.plugs.map((plug) => (
            <tr key={plug.target}>
              <td>
                {plug.label}
                {plug.extraction_factor > 1 && <Small> × {plug.extraction_factor}</Small>}
              </td>
              <td>
                <Bar style={{ width: `${4 + (plug.broken / worst) * 34}px` }} />
                {format.oneIn(plug.broken)}
              </td>
              <td>{format.oneIn(plug.thread)}</td>
              <td>{format.oneIn(plug.stubborn)}</td>
            </tr>
          ))}
          {trouble.mishaps.map((mishap) => (
            <tr key={`${mishap.step}-${mishap.what}`}>
              <td>{mishap.what}</td>
              <td colSpan={2}>{format.oneIn(mishap.chance)}</td>
              <td>+{format.minutes(mishap.minutes)} min</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {trouble.plugs[0] && (
        <p>
          <Small>
            Why {format.percent(trouble.plugs[0].broken)} for {trouble.plugs[0].label.toLowerCase()}:{" "}
            {format.percent(trouble.plugs[0].base)} for its construction
            {trouble.plugs[0].factors.map((factor) => `, ${oddsWords(factor, format)}`).join("")}. House settings, not
            yet learned.
          </Small>
        </p>
      )}
      {trouble.hours && (
        <p>
          <Small>
            With trouble counted in, half of such jobs are done within {format.hours(trouble.hours.p50)} h, 80 of 100
            within {format.hours(trouble.hours.p80)}, 95 of 100 within {format.hours(trouble.hours.p95)}.
          </Small>
        </p>
      )}
      {trouble.allowance[0] && (
        <p>
          <Small>
            If one breaks: {format.hours(trouble.allowance[0].extra_hours)} h more
            {trouble.allowance[0].cure_minutes > 0 &&
              ` and ${trouble.allowance[0].cure_minutes} min for the adhesive to cure`}
            , ready {format.wall(trouble.allowance[0].ready)}. Extraction itself fails in{" "}
            {format.oneIn(trouble.extraction_fails)} such jobs: then we stop and call; taking the head off is a quote of
            its own.
          </Small>
        </p>
      )}
      {trouble.shelf.length > 0 && (
        <p>
          <Strong>On the shelf before starting:</Strong>{" "}
          {trouble.shelf.map((row) => `${row.quantity} × ${row.label.toLowerCase()}`).join(", ")}.
        </p>
      )}
    </PanelScroll>
  );
}
