import { memo, useId } from "react";
import styled from "styled-components";
import type { Descent } from "../../api/client";
import { depthInk } from "../../shared/depth";
import { Unseen } from "../../shared/parts";
import { strokeKeys } from "./strokeKeys";

type Stroke = Descent["strokes"][number];

const WIDTH = 460;
const TOP = 16;
const THIN = 3;
const KINDS: Record<Stroke["kind"], string> = {
  house: "House task",
  remove: "Off",
  work: "Work",
  refit: "Back on",
  closing: "Closing",
  wait: "Waiting",
};

const Figure = styled.figure`
  margin: 0;
  position: relative;
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  .stroke:focus-visible {
    outline: none;
  }
  .stroke:focus-visible > rect {
    stroke: var(--mark);
    stroke-width: 2.5;
  }
`;

interface Props {
  descent: Descent;
  over?: Descent | null;
  active: string | null;
  onActive: (ref: string | null, label?: string) => void;
  height?: number;
  /** Several small drawings on one scale: the longest and deepest of them. Too small for numbers. */
  fit?: { length_minutes: number; levels: number };
  /** What a broken plug would add, in minutes; drawn below the bottom. */
  extra?: number;
}

function fill(stroke: Stroke, levels: number): string {
  return stroke.kind === "work" ? "var(--ink)" : depthInk(stroke.depth, levels - 1);
}

/** Room the words beside the trouble bar need. */
const SAID = 132;

/** The job seen from the side: minutes across to scale, layers down, waiting open and dotted. */
export const DescentDrawing = memo(function DescentDrawing({
  descent,
  over,
  active,
  onActive,
  height = 196,
  fit,
  extra = 0,
}: Props) {
  const id = useId();
  const length = Math.max(descent.length_minutes, over?.length_minutes ?? 0, fit?.length_minutes ?? 0, 1);
  const scale = WIDTH / length;
  const levels = Math.max(descent.levels, over?.levels ?? 0, fit?.levels ?? 0, 3);
  const hang = extra > 0 ? 18 : 0;
  const row = (height - TOP - 6 - hang) / levels;
  const bottom = TOP + levels * row;
  const worked = descent.strokes.filter((stroke) => stroke.kind === "work");
  const from = (worked[0]?.start ?? 0) * scale;
  const wide = Math.min(extra * scale, WIDTH - from);
  const before = from >= SAID && from > WIDTH - from - wide;
  const inside = !before && WIDTH - from - wide < SAID;
  const x = (minutes: number) => minutes * scale;
  const keys = strokeKeys(descent.strokes);
  const say = (stroke: Stroke) => `${KINDS[stroke.kind]}: ${stroke.label}, ${Math.round(stroke.minutes)} min`;

  return (
    <Figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="group"
        aria-label="The job over time: down through the layers, work, and back up"
      >
        <defs>
          <pattern id={`${id}-down`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <line x1="0" y1="0" x2="0" y2="5" stroke="var(--ink)" strokeWidth="1.1" />
          </pattern>
          <pattern id={`${id}-up`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="5" stroke="var(--ink)" strokeWidth="1.1" />
          </pattern>
        </defs>
        {Array.from({ length: levels }, (_, i) => (
          <line
            key={`level-${i + 1}`}
            x1="0"
            x2={WIDTH}
            y1={TOP + (i + 1) * row}
            y2={TOP + (i + 1) * row}
            stroke="var(--rule)"
            strokeWidth="1"
          />
        ))}
        {descent.strokes.map((stroke, i) => {
          const left = x(stroke.start);
          const width = Math.max(x(stroke.minutes), 0.6);
          const foot = TOP + stroke.depth * row;
          const thin = width < THIN;
          const events = {
            onPointerEnter: () => onActive(stroke.ref, say(stroke)),
            onPointerLeave: () => onActive(null),
            onFocus: () => onActive(stroke.ref, say(stroke)),
            onBlur: () => onActive(null),
          };
          const on = active === stroke.ref;
          const key = keys[i];
          if (stroke.depth === 0)
            return (
              <g key={key} className="stroke" tabIndex={0} role="img" aria-label={say(stroke)} {...events}>
                <rect
                  x={left}
                  y={TOP - 7}
                  width={width}
                  height="6"
                  fill={on ? "var(--mark)" : "var(--ink)"}
                  stroke="var(--paper)"
                  strokeWidth="0.7"
                />
              </g>
            );
          if (stroke.kind === "wait")
            return (
              <g key={key} className="stroke" tabIndex={0} role="img" aria-label={say(stroke)} {...events}>
                <rect
                  x={left}
                  y={TOP}
                  width={width}
                  height={foot - TOP}
                  fill="var(--paper)"
                  stroke="var(--ink)"
                  strokeWidth="1.2"
                  strokeDasharray="1.5 3"
                  strokeLinecap="round"
                />
              </g>
            );
          return (
            <g key={key} className="stroke" tabIndex={0} role="img" aria-label={say(stroke)} {...events}>
              <rect
                x={left}
                y={TOP}
                width={width}
                height={foot - TOP}
                fill={fill(stroke, levels)}
                stroke={on ? "var(--mark)" : "var(--ink)"}
                strokeWidth={on ? 2.2 : thin ? 0 : 0.9}
              />
              {stroke.kind !== "work" && !thin && (
                <rect
                  x={left}
                  y={foot - row}
                  width={width}
                  height={row}
                  fill={`url(#${id}-${stroke.kind === "remove" ? "down" : "up"})`}
                  pointerEvents="none"
                />
              )}
              {stroke.kind === "work" &&
                stroke.cylinder !== undefined &&
                !fit &&
                width > 11 &&
                !sameTurn(descent.strokes[i - 1], stroke) && (
                  <text
                    x={left + width / 2}
                    y={foot - row / 2 + 4}
                    textAnchor="middle"
                    fontSize="12.5"
                    fontWeight="650"
                    fill="var(--sheet)"
                    pointerEvents="none"
                  >
                    {stroke.cylinder}
                  </text>
                )}
            </g>
          );
        })}
        {hang > 0 && (
          <g>
            <rect
              x={from}
              y={bottom + 2}
              width={wide}
              height={hang - 3}
              fill={`url(#${id}-up)`}
              stroke="var(--ink)"
              strokeWidth="0.9"
              strokeDasharray="3 2"
            />
            {inside && <rect x={from + 5} y={bottom + 3} width={SAID - 6} height={hang - 5} fill="var(--paper)" />}
            <text
              x={before ? from - 6 : inside ? from + 9 : from + wide + 6}
              y={bottom + 14}
              textAnchor={before ? "end" : "start"}
              fontSize="12.5"
              fill="var(--second)"
            >
              if it breaks +{Math.round(extra)} min
            </text>
          </g>
        )}
        <line x1="0" x2={WIDTH} y1={TOP} y2={TOP} stroke="var(--ink)" strokeWidth="1.6" />
        {over && (
          <path
            d={profile(over, x, (depth) => TOP + depth * row)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.8"
            strokeDasharray="5 3.5"
            pointerEvents="none"
          />
        )}
      </svg>
      <Unseen as="ol" aria-label="The job in order">
        {descent.strokes.map((stroke, i) => (
          <li key={keys[i]}>{say(stroke)}</li>
        ))}
      </Unseen>
    </Figure>
  );
});

/** The number of a cylinder stands once, on the first work of its turn. */
function sameTurn(before: Stroke | undefined, stroke: Stroke): boolean {
  return before?.kind === "work" && before.cylinder === stroke.cylinder;
}

/** The outline of another descent. */
function profile(descent: Descent, x: (minutes: number) => number, y: (depth: number) => number): string {
  const below = descent.strokes.filter((stroke) => stroke.depth > 0);
  const first = below[0];
  const last = below.at(-1);
  if (!first || !last) return "";
  const steps = below.map(
    (stroke) => `L${x(stroke.start)} ${y(stroke.depth)} L${x(stroke.start + stroke.minutes)} ${y(stroke.depth)}`,
  );
  return `M${x(first.start)} ${y(0)} ${steps.join(" ")} L${x(last.start + last.minutes)} ${y(0)}`;
}
