import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import type { TracePage, TraceSheet } from "../api/client";
import { layout, WIDTH } from "../quote/drawing/reachLayout";
import { depthInk, onDepth } from "../shared/depth";
import { inHundred } from "./words";

const Chart = styled.div`
  position: relative;
  width: 100%;
  max-width: 480px;
  margin: 6px auto 0;
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
`;
const Mark = styled(ToggleButton)<{ $ink: string; $on: string; $lead: boolean }>`
  position: absolute;
  transform: translate(-50%, -50%);
  aspect-ratio: 1;
  min-width: 30px;
  border-radius: 50%;
  padding: 0;
  border: 1.5px solid var(--ink);
  background: ${(p) => p.$ink};
  color: ${(p) => p.$on};
  font-size: 20px;
  font-weight: 650;
  cursor: pointer;
  box-shadow: ${(p) => (p.$lead ? "0 0 0 2px var(--paper), 0 0 0 5px var(--mark)" : "none")};
  &[data-selected] {
    text-decoration: underline;
    text-underline-offset: 4px;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--ink);
    outline-offset: 8px;
  }
`;
const Share = styled.span`
  position: absolute;
  transform: translate(-50%, 0);
  background: var(--sheet);
  border-radius: 3px;
  padding: 0 6px;
  font-size: 14px;
  line-height: 19px;
  font-weight: 650;
  pointer-events: none;
  white-space: nowrap;
`;

interface Props {
  reach: TracePage["reach"];
  shares: TraceSheet["shares"];
  chosen: number;
  isStale: boolean;
  onChoose: (cylinder: number) => void;
}

/** Where it may be: the darker, the likelier; what lies over each stays drawn, in outline. */
export function Suspects({ reach, shares, chosen, isStale, onChoose }: Props) {
  const { height, center, box, radius } = layout(reach);
  const across = (x: number) => (x / WIDTH) * 100;
  const down = (y: number) => (y / height) * 100;
  const share = (number: number) => shares.find((row) => row.cylinder === number)?.share ?? 0;
  const most = Math.max(...shares.map((row) => row.share));
  return (
    <Chart aria-busy={isStale}>
      <svg viewBox={`0 0 ${WIDTH} ${height}`} aria-hidden="true">
        {reach.contours.flatMap((contour) =>
          contour.runs.map((run) => {
            const area = box(contour, run);
            return (
              <rect
                key={`${contour.label}-${run.first_row}-${run.first_column}`}
                {...area}
                rx={Math.min(26, area.height / 4)}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="0.9"
                strokeDasharray={contour.partial ? "6 4" : undefined}
              />
            );
          }),
        )}
        <text
          {...(reach.front === "bottom"
            ? { x: WIDTH / 2, y: height - 5 }
            : { transform: `translate(14 ${height / 2}) rotate(-90)` })}
          textAnchor="middle"
          fontSize="12"
          fill="var(--second)"
        >
          {reach.front === "bottom" ? "front of vehicle ↓" : "front of vehicle"}
        </text>
        {reach.front !== "bottom" && (
          <path d={`M17 ${height / 2 - 62} l-9 8 l9 8`} fill="none" stroke="var(--second)" strokeWidth="1.4" />
        )}
      </svg>
      {reach.cylinders.map(({ number, row, column, bank }) => {
        const at = center(row, column);
        const own = share(number);
        const step = Math.ceil(own * 6);
        const label = [`Cylinder ${number}`, bank && `${bank} bank`, `${inHundred(own)} likely`]
          .filter(Boolean)
          .join(", ");
        return (
          <span key={number}>
            <Mark
              style={{ left: `${across(at.x)}%`, top: `${down(at.y)}%`, width: `${across(radius * 2)}%` }}
              $ink={depthInk(step, 6)}
              $on={onDepth(step, 6)}
              $lead={own === most && own > 0.2}
              isSelected={number === chosen}
              onChange={() => onChoose(number)}
              aria-label={label}
            >
              {number}
            </Mark>
            <Share style={{ left: `${across(at.x)}%`, top: `${down(at.y + radius + 9)}%` }} aria-hidden="true">
              {inHundred(own)}
            </Share>
          </span>
        );
      })}
    </Chart>
  );
}
