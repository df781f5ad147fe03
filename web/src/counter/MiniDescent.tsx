import { memo } from "react";
import type { Descent } from "../api/client";
import { depthInk } from "../shared/depth";

const WIDTH = 150;
const HEIGHT = 38;
const TOP = 4;

/** A job's way down and back up, the size of a word: how deep, how long, where the work lies. */
interface Props {
  descent: Descent;
  /** Minutes of it that are done; all of it is drawn where nothing is said. */
  done?: number | null;
  label: string;
}

export const MiniDescent = memo(function MiniDescent({ descent, done, label }: Props) {
  const across = WIDTH / Math.max(descent.length_minutes, 1);
  const row = (HEIGHT - TOP - 1) / Math.max(descent.levels, 2);
  return (
    <svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
      {descent.strokes.map((stroke) => (
        <rect
          key={`${stroke.ref} ${stroke.start}`}
          x={stroke.start * across}
          y={stroke.depth === 0 ? 0 : TOP}
          width={Math.max(stroke.minutes * across, 0.4)}
          height={stroke.depth === 0 ? TOP : stroke.depth * row}
          fill={isOpen(stroke, done) ? "none" : stroke.kind === "work" ? "var(--ink)" : ink(stroke, descent)}
          stroke="var(--ink)"
          strokeWidth={0.5}
          strokeDasharray={stroke.kind === "wait" ? "1 2" : undefined}
        />
      ))}
      <path d={`M0 ${TOP}H${WIDTH}`} stroke="var(--ink)" />
    </svg>
  );
});

/** Waiting, and what is still to come, stay open. */
const isOpen = (stroke: Descent["strokes"][number], done?: number | null) =>
  stroke.kind === "wait" || (done != null && stroke.start + stroke.minutes / 2 > done);

const ink = (stroke: Descent["strokes"][number], descent: Descent) =>
  stroke.depth === 0 ? "var(--ink)" : depthInk(stroke.depth, descent.levels - 1);
