import type { Sheet } from "../../api/client";

type Reach = Pick<Sheet["reach"], "rows" | "columns" | "front" | "contours">;
type Contour = Reach["contours"][number];

/** Width of the drawing in its own units; its height follows the number of rows. */
export const WIDTH = 390;
const INSET = 9;
const EDGE = 5;
const TOP = 10;

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

function overlaps(a: Contour, b: Contour): boolean {
  return a.cylinders.some((n) => b.cylinders.includes(n));
}

/** Where everything stands, in the units of the view box. */
export function layout(reach: Reach) {
  const height = reach.rows === 1 ? 172 : 300;
  const foot = reach.front === "bottom" ? 20 : 6;
  const side = reach.front === "left" ? 26 : 6;
  const cellWidth = (WIDTH - side - 6) / reach.columns;
  const radius = Math.max(13, Math.min(22, cellWidth * 0.3));
  const cellHeight = (height - foot - TOP) / reach.rows;
  const center = (row: number, column: number) => ({
    x: side + (column - 0.5) * cellWidth,
    y: TOP + (row + 0.5) * cellHeight - 8,
  });
  const nest = (contour: Contour) =>
    reach.contours.filter((other) => other.level < contour.level && overlaps(other, contour)).length;
  const box = (contour: Contour, run: Contour["runs"][number]): Box => {
    const inset = nest(contour) * INSET + 1;
    const gap = (row: number) => (row > 0 && row < reach.rows ? 4 : 0);
    const left = side + (run.first_column - 1) * cellWidth;
    const right = side + run.last_column * cellWidth;
    const half = radius + EDGE + Math.max(0, 3 - nest(contour)) * 2;
    const first = center(run.first_row, run.first_column);
    const last = center(run.last_row, run.last_column);
    const x = Math.min(left + inset, first.x - half);
    const y = Math.min(TOP + run.first_row * cellHeight + inset + gap(run.first_row), first.y - half);
    const x2 = Math.max(right - inset, last.x + half);
    const y2 = Math.max(TOP + (run.last_row + 1) * cellHeight - inset - gap(run.last_row + 1), last.y + half + 20);
    return { x, y, width: x2 - x, height: y2 - y };
  };
  return { height, center, box, side, cellWidth, radius };
}

/**
 * One coil for several cylinders: a rail is a bar through all of them; a pair is joined by an arc over what stands
 * between.
 */
export function linked(points: { x: number; y: number }[], cellWidth: number, radius: number): string {
  const [first, ...rest] = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  if (!first) return "";
  if (rest.length !== 1 || rest[0]?.y !== first.y)
    return `M${first.x} ${first.y} ${rest.map((point) => `L${point.x} ${point.y}`).join(" ")}`;
  const last = rest[0];
  const lift = 14 + ((last.x - first.x) / cellWidth) * 9;
  const [from, to] = [first.y - radius, last.y - radius];
  return `M${first.x} ${from} C${first.x + 6} ${from - lift} ${last.x - 6} ${to - lift} ${last.x} ${to}`;
}

export interface Chip extends Box {
  text: string;
}

/** Chips with layer numbers stand on the upper edge of their contour, moved right until they cover no other chip. */
export function chipsOf(contours: Contour[], boxOf: (contour: Contour, run: Contour["runs"][number]) => Box): Chip[] {
  return contours.reduce<Chip[]>((placed, contour) => {
    const run = contour.runs[0];
    if (!run) return placed;
    const text = contour.beneath ? `${contour.label} from beneath` : contour.label;
    const area = boxOf(contour, run);
    const chip = {
      text,
      x: area.x + 18,
      y: area.y - 7,
      width: text.length * (contour.beneath ? 5.9 : 6.6) + 12,
      height: 15,
    };
    const covers = (other: Chip) =>
      chip.x < other.x + other.width + 4 && other.x < chip.x + chip.width + 4 && Math.abs(chip.y - other.y) < 15;
    for (let other = placed.find(covers); other; other = placed.find(covers)) chip.x = other.x + other.width + 6;
    return [...placed, chip];
  }, []);
}
