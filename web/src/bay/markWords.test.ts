import { expect, test } from "vitest";
import type { CardPiece, CardSheet } from "../api/client";
import { mark } from "./offlineQueue";
import { CURE, markWords } from "./markWords";

const sheet = {
  pieces: [
    { id: "step:cover:remove", kind: "remove", ref: "cover", label: "Engine cover" },
    { id: "target:plug-5:work", kind: "work", ref: "plug-5", label: "Plug 5" },
  ] as CardPiece[],
  plugs: [
    { key: "plug-5", target: "plug-5", nth: 1, label: "Plug 5", cylinder: 5, bank: null },
    { key: "plug-6", target: "plug-6", nth: 1, label: "Plug 6", cylinder: 6, bank: null },
    { key: "plug-6/2", target: "plug-6", nth: 2, label: "Plug 6", cylinder: 6, bank: null },
  ],
} as CardSheet;

test.each([
  [mark("start"), "started"],
  [mark("off", { piece: "step:cover:remove" }), "Engine cover, off"],
  [mark("out", { plug: "plug-5", outcome: "broken" }), "Plug 5 · came out: broke"],
  [mark("out", { plug: "plug-6", nth: 2, outcome: "free" }), "Plug 6, second · came out: free"],
  [mark("read", { plug: "plug-5", conditions: ["sooty", "worn"] }), "Plug 5 · read: dry black soot; rounded, wide gap"],
  [
    mark("fight", { what: "connector", piece: "step:cover:remove" }),
    "Engine cover, off · it fights: a connector will not let go",
  ],
  [mark("waiting", { piece: CURE }), "Adhesive cure · the wait began"],
  [mark("check", { piece: CURE }), "Adhesive cure, over"],
  [mark("pause", { why: "parts" }), "paused: waits for parts"],
  [mark("found", { finding: "wrong-plug" }), "found: wrong plug fitted"],
  [mark("left", { piece: "step:cover:remove", why: "not there" }), "Engine cover, off · left: not there"],
  [
    mark("correct", { piece: "step:cover:remove", minutes: 12, why: "at the telephone" }),
    "Engine cover, off · time corrected: 12 min, at the telephone",
  ],
  [mark("codes", { codes: [], lamp: "off" }), "codes read: none"],
  [mark("codes", { codes: [{ code: "P0305", status: "stored" }], lamp: "steady" }), "codes read: P0305"],
  [mark("note", { words: "torch in bay 2" }), "noted: torch in bay 2"],
])("a mark is read back in words (%#)", (one, words) => {
  expect(markWords(one, sheet)).toBe(words);
});

test("no mark is ever read back as nothing", () => {
  const bare = ["pause", "resume", "well", "new", "in", "over", "tick", "finished"] as const;
  expect(bare.map((kind) => markWords(mark(kind), sheet)).filter((words) => words === "")).toEqual([]);
});
