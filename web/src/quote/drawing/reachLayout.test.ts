import { describe, expect, test } from "vitest";
import { type Box, chipsOf, layout, linked, WIDTH } from "./reachLayout";

type Reach = Parameters<typeof layout>[0];
type Contour = Reach["contours"][number];

/** A contour over a block of places. */
function contour(
  label: string,
  level: number,
  cylinders: number[],
  [first_row, last_row, first_column, last_column]: [number, number, number, number],
  rest: Partial<Contour> = {},
): Contour {
  return {
    numbers: [level],
    label,
    cylinders,
    partial: false,
    level,
    depth: level,
    beneath: false,
    in_plan: true,
    runs: [{ first_row, last_row, first_column, last_column }],
    ...rest,
  };
}

const six = [1, 2, 3, 4, 5, 6];
const DRAWINGS: Record<string, Reach> = {
  "a sideways vee, rear bank deep": {
    rows: 2,
    columns: 3,
    front: "bottom",
    contours: [
      contour("1", 1, six, [0, 1, 1, 3]),
      contour("2–5", 2, [1, 3, 5], [0, 0, 1, 3]),
      contour("6", 3, [3, 5], [0, 0, 2, 3], { partial: true }),
    ],
  },
  "a lengthwise vee of eight": {
    rows: 2,
    columns: 4,
    front: "left",
    contours: [
      contour("1–2", 1, [1, 2, 3, 4, 5, 6, 7, 8], [0, 1, 1, 4]),
      contour("3", 2, [2, 4, 6, 8], [0, 0, 1, 4]),
      contour("4", 3, [7], [1, 1, 4, 4], { partial: true }),
      contour("5", 4, [8], [0, 0, 4, 4], { partial: true }),
    ],
  },
  "an inline six under the cowl": {
    rows: 1,
    columns: 6,
    front: "left",
    contours: [
      contour("1–2", 1, six, [0, 0, 1, 6]),
      contour("3–4", 2, [5, 6], [0, 0, 5, 6], { partial: true }),
      contour("5", 3, [6], [0, 0, 6, 6], { partial: true }),
    ],
  },
  "both banks apart": {
    rows: 2,
    columns: 3,
    front: "bottom",
    contours: [contour("1–3", 1, [1, 3, 5], [0, 0, 1, 3], { beneath: true }), contour("4", 2, [2, 4, 6], [1, 1, 1, 3])],
  },
  "five contours, one in the other": {
    rows: 1,
    columns: 6,
    front: "bottom",
    contours: [1, 2, 3, 4, 5].map((n) => contour(`${n}`, n, six.slice(n - 1), [0, 0, n, 6], { partial: n > 1 })),
  },
  "a single": { rows: 1, columns: 1, front: "bottom", contours: [contour("1–2", 1, [1], [0, 0, 1, 1])] },
  "twelve in two rows": {
    rows: 2,
    columns: 6,
    front: "left",
    contours: [
      contour(
        "1–14",
        1,
        Array.from({ length: 12 }, (_, i) => i + 1),
        [0, 1, 1, 6],
      ),
    ],
  },
};

const inside = (box: Box, height: number) =>
  box.x >= -1 && box.x + box.width <= WIDTH + 1 && box.y >= -1 && box.y + box.height <= height + 1;
const covers = (a: Box, b: Box) =>
  Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) > 0.5 &&
  Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) > 0.5;

describe.each(Object.entries(DRAWINGS))("%s", (_name, reach) => {
  const { box, center, height, radius } = layout(reach);
  const boxes = reach.contours.map((one) => ({ one, area: box(one, one.runs[0] as Contour["runs"][number]) }));

  test("holds every cylinder of a contour inside it, with its sounding", () => {
    for (const { one, area } of boxes)
      for (const run of one.runs)
        for (const [row, column] of [
          [run.first_row, run.first_column],
          [run.last_row, run.last_column],
        ] as const) {
          const at = center(row, column);
          expect(at.x - radius).toBeGreaterThanOrEqual(area.x);
          expect(at.x + radius).toBeLessThanOrEqual(area.x + area.width);
          expect(at.y - radius).toBeGreaterThanOrEqual(area.y);
          expect(at.y + radius + 17).toBeLessThanOrEqual(area.y + area.height);
        }
  });

  test("stays within the drawing", () => {
    for (const { area } of boxes) expect(inside(area, height)).toBe(true);
  });

  test("keeps marks of neighbors apart", () => {
    for (let row = 0; row < reach.rows; row++)
      for (let column = 1; column < reach.columns; column++)
        expect(center(row, column + 1).x - center(row, column).x).toBeGreaterThan(radius * 2 + 4);
  });

  test("lets no chip cover another", () => {
    const chips = chipsOf(reach.contours, box);
    expect(chips).toHaveLength(reach.contours.length);
    chips.forEach((chip, i) => chips.slice(i + 1).forEach((other) => expect(covers(chip, other)).toBe(false)));
  });
});

test("contours of different rows do not touch", () => {
  const reach = DRAWINGS["both banks apart"] as Reach;
  const { box } = layout(reach);
  const [upper, lower] = reach.contours.map((one) => box(one, one.runs[0] as Contour["runs"][number]));
  expect((upper as Box).y + (upper as Box).height).toBeLessThan((lower as Box).y);
});

test("says which contours are reached from beneath", () => {
  const reach = DRAWINGS["both banks apart"] as Reach;
  expect(chipsOf(reach.contours, layout(reach).box).map((chip) => chip.text)).toEqual(["1–3 from beneath", "4"]);
});

test("joins a pair by an arc over what stands between, a longer one higher, and a rail by a straight bar", () => {
  const at = (column: number) => ({ x: column * 90, y: 70 });
  const height = (path: string) =>
    Math.min(...[...path.matchAll(/[-\d.]+ ([-\d.]+)/g)].map((found) => Number(found[1])));
  const near = linked([at(2), at(3)], 90, 22);
  const far = linked([at(1), at(4)], 90, 22);
  expect(near).toContain("C");
  expect(height(far)).toBeLessThan(height(near));
  expect(linked([at(1), at(2), at(3), at(4)], 90, 22)).toBe("M90 70 L180 70 L270 70 L360 70");
  expect(linked([], 90, 22)).toBe("");
});

test("joins two cylinders of different rows by a straight line", () => {
  expect(
    linked(
      [
        { x: 100, y: 200 },
        { x: 100, y: 60 },
      ],
      90,
      22,
    ),
  ).toBe("M100 60 L100 200");
});
