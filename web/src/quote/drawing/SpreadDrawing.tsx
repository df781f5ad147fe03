import { memo, useId } from "react";
import type { Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";

interface Props {
  spread: NonNullable<Sheet["spread"]>;
  hours: NonNullable<Sheet["estimate"]>["hours"];
  trouble?: Sheet["trouble"];
}

const WIDTH = 460;
const HEIGHT = 78;
const BASE = 54;
const RISE = 38;

/** Hours as a range, with the quoted figure on it. */
export const SpreadDrawing = memo(function SpreadDrawing({ spread, hours, trouble }: Props) {
  const id = useId();
  const { format } = useSession();
  const hump = trouble?.curve ?? [];
  const low = Math.min(spread.low, hours.quoted) - 0.05;
  const high = Math.max(spread.high, hours.quoted, hump.at(-1)?.[0] ?? 0) + 0.05;
  const top = Math.max(...spread.curve.map(([, density = 0]) => density));
  const tall = (density: number) => Math.min(1, density / top) * RISE;
  const x = (value: number) => 8 + ((value - low) / (high - low)) * (WIDTH - 16);
  const points = spread.curve.map(
    ([at = 0, density = 0]) => `${x(at).toFixed(1)},${(BASE - tall(density)).toFixed(1)}`,
  );
  const second = hump.map(
    ([at = 0, density = 0]) => `${x(at).toFixed(1)},${(BASE - Math.max(tall(density), 1.5)).toFixed(1)}`,
  );
  const first = hump[0]?.[0] ?? 0;
  const last = hump.at(-1)?.[0] ?? 0;
  const step = high - low > 8 ? 2 : high - low > 3 ? 1 : high - low > 1.2 ? 0.5 : 0.2;
  const ticks = Array.from({ length: 30 }, (_, i) => Math.ceil(low / step) * step + i * step).filter(
    (tick) => tick <= high,
  );
  const quoted = x(hours.quoted);
  const left = quoted > WIDTH * 0.62;

  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      width="100%"
      aria-label={
        `Half of such jobs are done within ${format.hours(hours.p50)} hours, ` +
        `80 of 100 within ${format.hours(hours.p80)}, 95 of 100 within ${format.hours(hours.p95)}. ` +
        `Quoted: ${format.hours(hours.quoted)} hours.`
      }
    >
      <polygon
        points={`${x(spread.low)},${BASE} ${points.join(" ")} ${x(spread.high)},${BASE}`}
        fill="var(--depth-2)"
        stroke="var(--ink)"
        strokeWidth="1"
      />
      {second.length > 0 && (
        <>
          <defs>
            <pattern id={id} width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2="4" stroke="var(--ink)" strokeWidth="1" />
            </pattern>
          </defs>
          <polygon
            points={`${x(first)},${BASE} ${second.join(" ")} ${x(last)},${BASE}`}
            fill={`url(#${id})`}
            stroke="var(--ink)"
            strokeWidth="0.9"
            strokeDasharray="3 2"
          />
          {last > hours.quoted + (high - low) * 0.3 && (
            <text x={WIDTH - 10} y={BASE - 14} textAnchor="end" fontSize="13" fill="var(--second)">
              with trouble, {Math.round((1 - (trouble?.no_trouble ?? 1)) * 100)} in 100
            </text>
          )}
        </>
      )}
      <line x1="8" x2={WIDTH - 8} y1={BASE} y2={BASE} stroke="var(--ink)" strokeWidth="1.2" />
      {ticks.map((tick) => (
        <g key={tick.toFixed(2)}>
          <line x1={x(tick)} x2={x(tick)} y1={BASE} y2={BASE + 5} stroke="var(--ink)" />
          <text x={x(tick)} y={BASE + 19} textAnchor="middle" fontSize="13" fill="var(--second)">
            {format.hours(tick)}
          </text>
        </g>
      ))}
      {[hours.p50, hours.p80].map((p) => (
        <line
          key={p}
          x1={x(p)}
          x2={x(p)}
          y1={BASE - 10}
          y2={BASE}
          stroke="var(--ink)"
          strokeWidth="1"
          strokeDasharray="2 2"
        />
      ))}
      <line x1={quoted} x2={quoted} y1="6" y2={BASE + 5} stroke="var(--mark)" strokeWidth="2.6" />
      <text
        x={left ? quoted - 7 : quoted + 7}
        y="17"
        textAnchor={left ? "end" : "start"}
        fontSize="15"
        fontWeight="650"
        fill="var(--mark)"
      >
        quoted {format.hours(hours.quoted)} h
      </text>
    </svg>
  );
});
