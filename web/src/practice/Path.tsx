import type { PracticeEnd } from "../api/client";
import { useSession } from "../session/SessionGate";

type Point = PracticeEnd["yours"]["path"][number];

const WIDTH = 520;
const HEIGHT = 190;
const LEFT = 44;
const FOOT = 26;

interface Props {
  yours: Point[];
  tables: Point[];
}

/** How the truth came out: minutes run across, how likely the truth was held to be runs up. Dashed: the tables' way. */
export function Path({ yours, tables }: Props) {
  const { format } = useSession();
  const most = Math.max(20, ...[...yours, ...tables].map((point) => point.minutes));
  const x = (minutes: number) => LEFT + (minutes / most) * (WIDTH - LEFT - 14);
  const y = (chance: number) => 8 + (1 - chance) * (HEIGHT - FOOT - 14);
  const line = (points: Point[]) => points.map((point) => `${x(point.minutes)},${y(point.chance)}`).join(" ");
  const last = (points: Point[]) => Math.round((points.at(-1)?.chance ?? 0) * 100);
  const ticks = [0, most / 2, most];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`The truth was held for ${last(yours)} of 100 in the end, by the tables for ${last(tables)}`}
      style={{ display: "block", width: "100%", maxWidth: 640, height: "auto" }}
    >
      {[0, 0.5, 1].map((chance) => (
        <g key={chance}>
          <line x1={LEFT} x2={WIDTH - 14} y1={y(chance)} y2={y(chance)} stroke="var(--rule)" strokeWidth="1.3" />
          <text x={LEFT - 7} y={y(chance) + 4} textAnchor="end" fontSize="12" fill="var(--second)">
            {chance * 100} %
          </text>
        </g>
      ))}
      {ticks.map((minutes) => (
        <text
          key={minutes}
          x={x(minutes)}
          y={HEIGHT - 6}
          textAnchor={minutes === most ? "end" : "middle"}
          fontSize="12"
          fill="var(--second)"
        >
          {format.minutes(minutes)} min
        </text>
      ))}
      <polyline points={line(tables)} fill="none" stroke="var(--second)" strokeWidth="2" strokeDasharray="5 4" />
      <polyline points={line(yours)} fill="none" stroke="var(--ink)" strokeWidth="2.6" />
      {yours.map((point, i) => (
        <circle key={i} cx={x(point.minutes)} cy={y(point.chance)} r="4.4" fill="var(--ink)" />
      ))}
      {tables.map((point, i) => (
        <circle
          key={i}
          cx={x(point.minutes)}
          cy={y(point.chance)}
          r="3.4"
          fill="var(--paper)"
          stroke="var(--second)"
          strokeWidth="1.6"
        />
      ))}
    </svg>
  );
}
