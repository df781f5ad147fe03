import { expect, test } from "vitest";
import type { JobCard, Mark } from "../api/client";
import { kept, type Kept, mark, stateOf } from "./offlineQueue";

const card = (marks: Mark[] = [], revision = 1) => ({ job: { id: "j" }, revision, marks }) as unknown as JobCard;
const answer = (marks: Mark[], taken: Mark[], refused: Mark[] = []) => ({
  ...card(marks),
  taken: taken.map((one) => one.id),
  refused: refused.map(({ id }) => ({ id, code: "x", message: "x" })),
});
const press = (before: Kept | null, ...marks: Mark[]) => kept(before, { kind: "pressed", marks });

test("keeps what was marked until the server has it", () => {
  const [a, b] = [mark("start"), mark("off", { piece: "step:cover:remove" })];
  const away = press(kept(null, { kind: "fetched", card: card() }), a, b);
  expect(away?.queue).toEqual([a, b]);
  expect(stateOf(away as Kept).done).toHaveProperty("step:cover:remove");
  const half = kept(away, { kind: "handed-in", answer: answer([a], [a]) });
  expect(half?.queue).toEqual([b]);
  const whole = kept(half, { kind: "fetched", card: card([a, b]) });
  expect(whole?.queue).toEqual([]);
  expect(stateOf(whole as Kept)).toEqual(stateOf(away as Kept));
});

test("drops what the server will not have, and nothing else", () => {
  const [a, b] = [mark("start"), mark("note", { words: "late" })];
  const away = press(kept(null, { kind: "fetched", card: card() }), a, b);
  expect(kept(away, { kind: "handed-in", answer: answer([a], [a], [b]) })?.queue).toEqual([]);
});

test("is not put back by an answer that was overtaken", () => {
  const [a, b] = [mark("start"), mark("note", { words: "x" })];
  const now = kept(null, { kind: "fetched", card: card([a, b]) });
  expect(kept(now, { kind: "fetched", card: card([a]) })?.card.marks).toEqual([a, b]);
  expect(kept(now, { kind: "fetched", card: card([a, b], 2) })?.card.revision).toBe(2);
});

test("marks made in one moment keep their order", () => {
  const marks = Array.from({ length: 5 }, () => mark("note", { words: "x" }, 1_000));
  expect([...marks].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))).toEqual(marks);
  expect(new Set(marks.map((one) => one.at)).size).toBe(5);
});
