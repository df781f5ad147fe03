import { memo } from "react";
import { ToggleButton } from "react-aria-components";
import styled, { css } from "styled-components";
import type { Finding, Fitting, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { depthInk } from "../../shared/depth";
import { type Formatter, list } from "../../shared/format";
import { Small } from "../../shared/parts";
import { underWarranty } from "../../car/fittings";
import { tagOfFindings } from "../vehicle/findings";
import { type Past, tagOf } from "../vehicle/plugPasts";
import { chipsOf, layout, linked, WIDTH } from "./reachLayout";

type Reach = Sheet["reach"];

const Chart = styled.div`
  position: relative;
  width: 100%;
  max-width: 520px;
  margin: 0 auto;
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
`;

const mark = css`
  position: absolute;
  transform: translate(-50%, -50%);
  aspect-ratio: 1;
  min-width: 30px;
  border-radius: 50%;
  padding: 0;
  border: 1.5px solid var(--ink);
  background: var(--sheet);
  color: var(--ink);
  font-size: 20px;
  font-weight: 650;
  display: grid;
  place-items: center;
`;
/** One pip for each plug, where a cylinder has several. */
const Pips = styled.span`
  position: absolute;
  bottom: 12%;
  left: 0;
  right: 0;
  display: flex;
  gap: 3px;
  justify-content: center;
  i {
    width: 5px;
    height: 5px;
    border-radius: 50%;
    background: currentColor;
  }
`;
const Still = styled.span`
  ${mark}
`;
const Mark = styled(ToggleButton)`
  ${mark} cursor: pointer;
  &[data-selected] {
    background: var(--ink);
    color: var(--sheet);
    box-shadow:
      0 0 0 2.5px var(--sheet),
      0 0 0 5.5px var(--mark);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--ink);
    outline-offset: 8px;
  }
  &[data-disabled] {
    cursor: default;
  }
`;

const Sounding = styled.span`
  position: absolute;
  transform: translate(-50%, 0);
  background: var(--sheet);
  border-radius: 3px;
  padding: 0 6px;
  font-size: 13px;
  line-height: 17px;
  font-weight: 650;
  pointer-events: none;
  white-space: nowrap;
`;

/** What is a cylinder's own: its plug's past, and what was found there. */
const Tags = styled.span`
  position: absolute;
  display: grid;
  gap: 2px;
  justify-items: start;
  transform: translateY(-40%);
  pointer-events: none;
`;
const Tag = styled.span<{ $found?: boolean }>`
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: 3px;
  padding: 0 5px;
  font-size: 12px;
  line-height: 16px;
  white-space: nowrap;
  ${(p) => p.$found && "border-width: 2px; font-weight: 650;"}
`;

function pips(plugs: number) {
  return (
    plugs > 1 && (
      <Pips aria-hidden="true">
        {Array.from({ length: plugs }, (_, i) => (
          <i key={i} />
        ))}
      </Pips>
    )
  );
}

interface CylinderProps {
  number: number;
  plugs: number;
  label: string;
  /** Where it is and how large, in percent of the drawing. */
  left: number;
  top: number;
  width: number;
  chosen: boolean;
  disabled?: boolean;
  onPress?: (cylinder: number) => void;
}

/** One cylinder to press; drawn anew only when something of its own changes. */
const Cylinder = memo(function Cylinder({
  number,
  plugs,
  label,
  left,
  top,
  width,
  chosen,
  disabled,
  onPress,
}: CylinderProps) {
  const spot = { left: `${left}%`, top: `${top}%`, width: `${width}%` };
  if (!onPress)
    return (
      <Still style={spot} role="img" aria-label={label}>
        {number}
        {pips(plugs)}
      </Still>
    );
  return (
    <Mark style={spot} isSelected={chosen} onChange={() => onPress(number)} isDisabled={disabled} aria-label={label}>
      {number}
      {pips(plugs)}
    </Mark>
  );
});

/** What lies over the cylinders, as contours: deeper water darker. */
const Contours = memo(function Contours({ reach, lifted }: { reach: Reach; lifted: number[] }) {
  const { height, center, box, side, cellWidth, radius } = layout(reach);
  const deepest = Math.max(6, ...reach.contours.map((contour) => contour.depth));
  const place = (number: number) => reach.cylinders.find((cylinder) => cylinder.number === number);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} aria-hidden="true">
      {reach.contours.map((contour) =>
        contour.runs.map((run) => {
          const area = box(contour, run);
          const up = contour.numbers.some((number) => lifted.includes(number));
          return (
            <rect
              key={`${contour.label}-${run.first_row}-${run.first_column}`}
              {...area}
              rx={Math.min(26, area.height / 4)}
              fill={contour.partial ? "none" : depthInk(contour.depth, deepest)}
              stroke={up ? "var(--mark)" : "var(--ink)"}
              strokeWidth={up ? 2.4 : contour.in_plan ? 1.9 : 0.9}
              strokeDasharray={contour.beneath ? "1.5 4" : contour.partial ? "6 4" : undefined}
              strokeLinecap="round"
            />
          );
        }),
      )}
      {reach.links.map((link) => (
        <path
          key={link.coil}
          d={linked(
            link.cylinders
              .map(place)
              .filter((cylinder) => cylinder !== undefined)
              .map((cylinder) => center(cylinder.row, cylinder.column)),
            cellWidth,
            radius,
          )}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={link.cylinders.length > 2 ? 5 : 1.6}
          strokeDasharray={link.cylinders.length > 2 ? undefined : "1 4"}
          strokeLinecap="round"
        />
      ))}
      {reach.cylinders.map((cylinder) => {
        const at = center(cylinder.row, cylinder.column);
        return (
          cylinder.layers.length > 0 && (
            <circle
              key={cylinder.number}
              cx={at.x}
              cy={at.y}
              r={radius + 4.5}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="0.8"
            />
          )
        );
      })}
      {chipsOf(reach.contours, box).map((chip) => (
        <g key={chip.text}>
          <rect
            x={chip.x}
            y={chip.y}
            width={chip.width}
            height={chip.height}
            rx="3"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="0.9"
          />
          <text x={chip.x + chip.width / 2} y={chip.y + 11.4} textAnchor="middle" fontSize="11.5" fill="var(--ink)">
            {chip.text}
          </text>
        </g>
      ))}
      {reach.front === "bottom" ? (
        <g>
          <path d={`M${WIDTH / 2 - 74} ${height - 15} l8 9 l8 -9`} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
          <text x={WIDTH / 2 - 50} y={height - 5} fontSize="12" fill="var(--second)">
            front of vehicle
          </text>
        </g>
      ) : (
        <g>
          <path d={`M17 ${height / 2 - 62} l-9 8 l9 8`} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
          <text
            x={side / 2 + 3}
            y={height / 2 + 4}
            fontSize="12"
            fill="var(--second)"
            textAnchor="middle"
            transform={`rotate(-90 ${side / 2 + 3} ${height / 2 + 4})`}
          >
            front of vehicle
          </text>
        </g>
      )}
    </svg>
  );
});

interface Props {
  reach: Reach;
  /** Cylinders whose plugs have a past of their own. */
  pasts?: Record<string, Past>;
  /** What earlier visits found on the car. */
  findings?: Finding[];
  /** What was fitted to the car, and is still ours to answer for. */
  fittings?: Fitting[];
  chosen: number[];
  stale: boolean;
  lifted: number[];
  /** Left out where the drawing is only looked at. */
  onPress?: (cylinder: number) => void;
  disabled?: boolean;
}

/** The engine from above: contours, the cylinders to press, and the hours of each if done alone. */
export function ReachDrawing({
  reach,
  pasts,
  findings = [],
  fittings = [],
  chosen,
  stale,
  lifted,
  onPress,
  disabled,
}: Props) {
  const { format } = useSession();
  const { height, center, radius } = layout(reach);
  const across = (x: number) => (x / WIDTH) * 100;
  const down = (y: number) => (y / height) * 100;

  return (
    <Chart aria-busy={stale}>
      <Contours reach={reach} lifted={lifted} />
      {reach.cylinders.map((cylinder) => {
        const at = center(cylinder.row, cylinder.column);
        const past = tagOf(pasts?.[String(cylinder.number)]);
        const found = [tagOfFindings(findings, cylinder.number), underWarranty(fittings, cylinder.number)]
          .filter(Boolean)
          .join("; ");
        return (
          <span key={cylinder.number}>
            <Cylinder
              number={cylinder.number}
              plugs={cylinder.plugs}
              label={inWords(cylinder, { past, found }, format)}
              left={across(at.x)}
              top={down(at.y)}
              width={across(radius * 2)}
              chosen={chosen.includes(cylinder.number)}
              disabled={disabled}
              onPress={onPress}
            />
            <Sounding style={{ left: `${across(at.x)}%`, top: `${down(at.y + radius + 9)}%` }} aria-hidden="true">
              {cylinder.hours === null ? "no way" : format.hours(cylinder.hours)}
              {cylinder.beneath && " ▴"}
            </Sounding>
            {(past || found) && (
              <Tags
                style={{ left: `${across(at.x + radius * 0.7)}%`, top: `${down(at.y - radius - 4)}%` }}
                aria-hidden="true"
              >
                {past && <Tag>{past}</Tag>}
                {found && <Tag $found>{found}</Tag>}
              </Tags>
            )}
          </span>
        );
      })}
      {reach.listed.length > 0 && (
        <Small as="p">
          Not drawn: {reach.listed.map((row) => `layer ${row.label} over ${list(row.cylinders)}`).join("; ")}.
        </Small>
      )}
    </Chart>
  );
}

/** A cylinder for those who do not see the drawing. */
function inWords(
  cylinder: Sheet["reach"]["cylinders"][number],
  { past, found }: { past: string; found: string },
  format: Formatter,
): string {
  const alone =
    cylinder.hours === null
      ? ["no way to it with this equipment"]
      : [
          `${format.hours(cylinder.hours)} hours if done alone`,
          cylinder.beneath && "from beneath",
          cylinder.plugs > 1 && `${cylinder.plugs} plugs`,
        ];
  const where = [`Cylinder ${cylinder.number}`, cylinder.bank && `${cylinder.bank} bank`];
  return [...where, ...alone, past && `plug: ${past}`, found && `found: ${found}`].filter(Boolean).join(", ");
}
