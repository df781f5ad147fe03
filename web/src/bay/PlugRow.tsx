import styled from "styled-components";
import type { CardSheet, CardStanding, CardState } from "../api/client";
import type { Formatter } from "../shared/format";
import { CONDITIONS, OUTCOMES, SIGNS } from "./words";
import { aboutPlug } from "./pieces";
import { PlugDrawing } from "./PlugDrawing";

const Row = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px;
  li {
    border: 1px solid var(--strong);
    border-radius: 10px;
    background: var(--sheet);
    padding: 8px 12px 10px;
    min-height: 112px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 44px;
    gap: 6px;
    font-size: 14px;
  }
  li[data-now] {
    border: 3px solid var(--mark);
    padding: 6px 10px 8px;
  }
  b {
    font-size: 22px;
    font-weight: 650;
    display: block;
    line-height: 1.2;
  }
  strong {
    font-size: 15px;
    font-weight: 650;
    display: block;
  }
  em {
    font-style: normal;
    font-weight: 650;
    color: var(--mark);
    display: block;
  }
  span {
    color: var(--second);
    display: block;
  }
`;

interface Props {
  sheet: CardSheet;
  state: CardState;
  standing: CardStanding;
  now: string | null;
  format: Formatter;
}

/** The plugs in engine order, read side by side as on a bench; the one unlike the others is named. */
export function PlugRow({ sheet, state, standing, now, format }: Props) {
  return (
    <Row aria-label="Plugs, in engine order">
      {sheet.plugs.map((plug) => {
        const known = state.plugs[plug.key];
        const odd = standing.odd_plug?.key === plug.key ? standing.odd_plug : null;
        const odds = standing.odds.find((row) => row.target === plug.target);
        const number = plug.cylinder ?? plug.label;
        const wanted = aboutPlug(sheet, plug.target)?.gap_mm;
        const place = plug.label.split(", ").slice(1).join(", ");
        return (
          <li key={plug.key} data-now={plug.key === now || undefined}>
            <div>
              <b>{number}</b>
              {place && <span>{place}</span>}
              {known?.read?.conditions?.map((code) => (
                <strong key={code}>{CONDITIONS[code as keyof typeof CONDITIONS]?.[0] ?? code}</strong>
              ))}
              {known?.read?.gap_mm !== undefined && (
                <span>
                  gap {format.figure(known.read.gap_mm, 2)} mm
                  {wanted && `, wants ${format.figure(wanted.low, 2)} to ${format.figure(wanted.high, 2)}`}
                </span>
              )}
              {known?.out && (
                <span>
                  {OUTCOMES.find(([code]) => code === known.out?.outcome)?.[1]}
                  {known.out.sign && `, ${SIGNS.find(([code]) => code === known.out?.sign)?.[1]}`}
                </span>
              )}
              {known?.in && <span>new one in, {known.in.how === "angle" ? "by angle" : "torqued"}</span>}
              {!known?.out && odds && (
                <span>
                  fights: {Math.round(odds.fights * 100)} in 100
                  {odds.moved && `, was ${Math.round(odds.fights_before * 100)}`}
                </span>
              )}
              {odd && <em>unlike the others</em>}
            </div>
            <PlugDrawing condition={known?.read?.conditions?.[0]} isOut={known?.out !== undefined} />
          </li>
        );
      })}
    </Row>
  );
}
