import type { Formatter } from "../shared/format";

const SCALE = 38;
const WIDTH = 220;

interface Props {
  /** As measured, mm. */
  gap: number | null;
  wanted?: { low: number; high: number };
  format: Formatter;
}

/** A gap drawn to scale, near forty times as large, with what it should be beside it. */
export function GapDrawing({ gap, wanted, format }: Props) {
  const high = wanted ? wanted.high * SCALE : 0;
  const low = wanted ? wanted.low * SCALE : 0;
  const open = Math.min(gap ?? 0, 2.5) * SCALE;
  const words = `${gap === null ? "no gap read" : `gap ${format.figure(gap, 2)} mm`}${
    wanted ? `, wants ${format.figure(wanted.low, 2)} to ${format.figure(wanted.high, 2)}` : ""
  }`;
  return (
    <svg viewBox={`0 0 ${WIDTH} 118`} width={WIDTH} height="118" role="img" aria-label={words}>
      <rect x="20" y="4" width="40" height="22" fill="var(--depth-2)" stroke="var(--ink)" />
      <path
        d={`M20 ${26 + open}h40v10h-40z`}
        fill="var(--ink)"
        stroke="var(--ink)"
        strokeDasharray={gap === null ? "3 3" : undefined}
        fillOpacity={gap === null ? 0 : 1}
      />
      {wanted && (
        <g>
          <rect x="84" y={26 + low} width="26" height={Math.max(high - low, 1)} fill="var(--depth-3)" />
          <path d={`M70 26H150M84 ${26 + low}H150M84 ${26 + high}H150`} stroke="var(--strong)" />
          <text x="154" y={30 + low} fontSize="13" fill="var(--second)">
            {format.figure(wanted.low, 2)}
          </text>
          <text x="154" y={Math.max(44 + low, 34 + high)} fontSize="13" fill="var(--second)">
            {format.figure(wanted.high, 2)} mm
          </text>
        </g>
      )}
      {gap !== null && <path d={`M64 ${26 + open}H80`} stroke="var(--mark)" strokeWidth="3" />}
    </svg>
  );
}
