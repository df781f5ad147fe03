import { expect, test } from "vitest";
import type { Content, Scope } from "../../api/client";
import { MAX_SCOPES, scopeEdits, withBundle } from "./scopeEdits";

const scope: Scope = { name: "Rear", cylinders: [5], works: ["plug", "coil"], extras: [] };
const bundle = {
  label: "Tube seals",
  opening: null,
  targets: ["tube-seal-1"],
  cylinders: [1],
  works: ["tube-seal"],
  added_hours: 0.8,
  added_cents: 1,
  alone_hours: 1,
  alone_cents: 2,
};

/** A quote that keeps what was done to it. */
function quote(writes = true) {
  let content: Content = { scopes: [scope], active: 0 };
  const change = (next: (now: Content) => Content) => {
    content = next(content);
  };
  return { edits: scopeEdits(change, [1, 2, 3, 4, 5, 6], writes), now: () => content };
}

test("another scope starts as a copy of this one, without its name, up to three", () => {
  const { edits, now } = quote();
  for (let i = 0; i < 4; i += 1) edits.another();
  expect(now().scopes).toHaveLength(MAX_SCOPES);
  expect(now().active).toBe(MAX_SCOPES - 1);
  expect(now().scopes[1]).toEqual({ ...scope, name: "" });
  edits.turn(1);
  expect(now().active).toBe(0);
});

test("the last scope stays, and those who may only look change nothing but the page they look at", () => {
  const { edits, now } = quote();
  edits.drop();
  expect(now().scopes).toEqual([scope]);
  const looking = quote(false);
  looking.edits.press(1);
  looking.edits.another();
  expect(looking.now().scopes).toEqual([scope]);
});

test("all, then none", () => {
  const { edits, now } = quote();
  edits.toggleAll();
  expect(now().scopes[0]?.cylinders).toEqual([1, 2, 3, 4, 5, 6]);
  edits.toggleAll();
  expect(now().scopes[0]?.cylinders).toEqual([]);
});

test("the same work on more cylinders is added as cylinders, other work as extras", () => {
  expect(
    withBundle(scope, { ...bundle, works: ["plug", "coil"], cylinders: [5, 3], targets: ["plug-3", "coil-3"] }),
  ).toEqual({ ...scope, cylinders: [5, 3] });
  expect(withBundle(scope, bundle)).toEqual({ ...scope, extras: ["tube-seal-1"] });
});
