import { memo } from "react";
import styled from "styled-components";
import type { CardSheet, CardState } from "../api/client";
import { depthInk } from "../shared/depth";
import { list } from "../shared/format";

const WIDTH = 772;
const HEIGHT = 176;
const TOP = 22;
const FLOOR = 12;

const Figure = styled.figure`
  margin: 0;
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  figcaption {
    display: flex;
    justify-content: space-between;
    gap: 14px;
    color: var(--second);
    font-size: 14px;
    padding-top: 4px;
  }
`;

interface Props {
  sheet: CardSheet;
  state: CardState;
  /** The piece in hand. */
  now: string | null;
  below: [string, string, string];
}

/** The descent as map and progress at once: solid what is done, dashed what is to come, one mark at now. */
export const DescentMap = memo(function DescentMap({ sheet, state, now, below }: Props) {
  const across = WIDTH / Math.max(sheet.length_minutes, 1);
  const row = (HEIGHT - TOP - FLOOR) / Math.max(sheet.levels, 2);
  const starts = sheet.pieces.reduce<number[]>((all, piece, i) => [...all, (all[i] ?? 0) + piece.minutes], [0]);
  const at = sheet.pieces.findIndex((piece) => piece.id === now);
  const begun = state.started_at !== null;
  const x = (!begun ? 0 : at < 0 ? sheet.length_minutes : (starts[at] ?? 0)) * across;
  const done = sheet.pieces.filter((piece) => piece.id in state.done).length;
  const numbers = [...new Set(sheet.pieces.filter((p) => p.kind === "work" && p.cylinder).map((p) => p.cylinder))];

  return (
    <Figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`${done} of ${sheet.pieces.length} pieces done; work at cylinder ${list(numbers.map(String))}`}
      >
        {Array.from({ length: sheet.levels }, (_, i) => (
          <path key={i} d={`M0 ${TOP + (i + 1) * row}H${WIDTH}`} stroke="var(--rule)" />
        ))}
        {sheet.pieces.map((piece, i) => {
          if (piece.minutes === 0) return null; // a mark takes no room
          const isDone = piece.id in state.done;
          const height = piece.depth === 0 ? 6 : piece.depth * row;
          const bottom = piece.kind === "work" || piece.kind === "soak";
          const fill = bottom ? "var(--ink)" : depthInk(piece.depth, sheet.levels - 1);
          return (
            <rect
              key={piece.id}
              x={(starts[i] ?? 0) * across}
              y={piece.depth === 0 ? TOP - 6 : TOP}
              width={Math.max(piece.minutes * across, 0.6)}
              height={height}
              fill={isDone && !piece.waiting ? fill : "var(--sheet)"}
              stroke="var(--ink)"
              strokeWidth={isDone ? 0.8 : 0.7}
              strokeDasharray={piece.waiting ? "1 3" : isDone ? undefined : "3 3"}
            />
          );
        })}
        {labels(sheet, state, starts).map(({ number, from, to, isDone }) => (
          <text
            key={number}
            x={((from + to) / 2) * across}
            y={HEIGHT - FLOOR - 6}
            textAnchor="middle"
            fontSize="13"
            fontWeight="650"
            stroke={isDone ? "var(--ink)" : "var(--sheet)"}
            strokeWidth="4"
            paintOrder="stroke"
            fill={isDone ? "var(--sheet)" : "var(--ink)"}
          >
            {number}
          </text>
        ))}
        <path d={`M0 ${TOP}H${WIDTH}`} stroke="var(--ink)" strokeWidth="1.4" />
        <path d={`M${Math.min(x, WIDTH - 2)} 6V${HEIGHT - FLOOR + 4}`} stroke="var(--mark)" strokeWidth="3" />
        <text
          x={Math.min(x, WIDTH - 2) + (x > WIDTH - 60 ? -6 : 6)}
          y={14}
          textAnchor={x > WIDTH - 60 ? "end" : "start"}
          fill="var(--mark)"
          fontSize="13"
          fontWeight="650"
        >
          {!begun ? "start" : at < 0 ? "all done" : "now"}
        </text>
      </svg>
      <figcaption>
        {below.map((words, i) => (
          <span key={i}>{words}</span>
        ))}
      </figcaption>
    </Figure>
  );
});

/** Where the work on each cylinder lies along the bottom. */
function labels(sheet: CardSheet, state: CardState, starts: number[]) {
  const spans = new Map<number, { number: number; from: number; to: number; isDone: boolean }>();
  sheet.pieces.forEach((piece, i) => {
    if (piece.kind !== "work" || !piece.cylinder) return;
    const from = starts[i] ?? 0;
    const known = spans.get(piece.cylinder);
    spans.set(piece.cylinder, {
      number: piece.cylinder,
      from: known?.from ?? from,
      to: from + piece.minutes,
      isDone: (known?.isDone ?? true) && piece.id in state.done,
    });
  });
  return [...spans.values()];
}
