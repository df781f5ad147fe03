import type { LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";

type Stroke = LedgerPage["last"][number];

const WIDTH = 470;
const LEFT = 8;
const STEP = 12.5;

/** Each job a stroke on one time scale: from what was quoted to what it took; over it solid, within it dotted. */
export function Strokes({ jobs }: { jobs: Stroke[] }) {
  const { format } = useSession();
  const sorted = [...jobs].sort((a, b) => a.quoted_hours - b.quoted_hours || a.hours - b.hours);
  const most = Math.max(1, ...sorted.map((job) => Math.max(job.hours, job.quoted_hours)));
  const x = (hours: number) => LEFT + (hours / most) * (WIDTH - 2 * LEFT);
  const height = sorted.length * STEP + 26;
  const hours = Array.from({ length: Math.floor(most) }, (_, i) => i + 1);
  const over = sorted.filter((job) => job.hours > job.quoted_hours).length;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={`The last ${sorted.length} jobs: ${over} took longer than quoted, ${sorted.length - over} did not`}
      style={{ display: "block", width: "100%", maxWidth: 600, height: "auto" }}
    >
      {hours.map((hour) => (
        <g key={hour}>
          <line x1={x(hour)} x2={x(hour)} y1="0" y2={height - 20} stroke="var(--rule)" strokeWidth="1.4" />
          <text x={x(hour)} y={height - 5} textAnchor="middle" fontSize="12.5" fill="var(--second)">
            {format.figure(hour)} h
          </text>
        </g>
      ))}
      {sorted.map((job, i) => {
        const y = (i + 0.6) * STEP;
        const isOver = job.hours > job.quoted_hours;
        return (
          <g key={job.id}>
            <line
              x1={x(job.quoted_hours)}
              x2={x(job.quoted_hours)}
              y1={y - 4}
              y2={y + 4}
              stroke="var(--ink)"
              strokeWidth="1.5"
            />
            <line
              x1={x(job.quoted_hours)}
              x2={x(job.hours)}
              y1={y}
              y2={y}
              stroke="var(--ink)"
              strokeWidth={isOver ? 2.6 : 1.5}
              strokeDasharray={isOver ? undefined : "2 2.5"}
            />
            <circle cx={x(job.hours)} cy={y} r="3.4" fill={isOver ? "var(--mark)" : "var(--ink)"} />
          </g>
        );
      })}
    </svg>
  );
}
