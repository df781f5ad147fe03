import type { WorkshopLook } from "../api/client";
import { layout, WIDTH } from "../quote/drawing/reachLayout";

type Reach = NonNullable<WorkshopLook["page"]>["reach"];

/** The layer in hand: a dashed line around the cylinders it lies over, row by row. */
export function Outline({ reach, over }: { reach: Reach; over: number[] }) {
  const { height, center, radius } = layout(reach);
  const room = radius + 11;
  const rows = [...new Set(reach.cylinders.map((cylinder) => cylinder.row))];
  const stretches = rows.flatMap((row) => {
    const inRow = reach.cylinders.filter((cylinder) => cylinder.row === row).sort((a, b) => a.column - b.column);
    return inRow.reduce<(typeof inRow)[]>((runs, cylinder, i) => {
      if (!over.includes(cylinder.number)) return runs;
      const before = inRow[i - 1];
      const run = runs.at(-1);
      if (run && before && over.includes(before.number)) run.push(cylinder);
      else runs.push([cylinder]);
      return runs;
    }, []);
  });
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      aria-hidden="true"
      style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
    >
      {stretches.map((run) => {
        const first = run[0];
        const last = run.at(-1);
        if (!first || !last) return null;
        const from = center(first.row, first.column);
        const to = center(last.row, last.column);
        return (
          <rect
            key={first.number}
            x={from.x - room}
            y={from.y - room}
            width={to.x - from.x + 2 * room}
            height={2 * room}
            rx="16"
            fill="none"
            stroke="var(--mark)"
            strokeWidth="2.4"
            strokeDasharray="8 5"
          />
        );
      })}
    </svg>
  );
}
