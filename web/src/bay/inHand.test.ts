import { expect, test } from "vitest";
import type { CardPiece, CardSheet, Mark } from "../api/client";
import { fold } from "./fold";
import { coming, inHand, openTicks } from "./inHand";
import { mark } from "./offlineQueue";

const piece = (id: string, more: Partial<CardPiece> = {}) => ({ id, kind: "remove", ref: id, ...more }) as CardPiece;
const sheet = {
  pieces: [
    piece("step:cover:remove"),
    piece("wait:soak", { kind: "wait", waiting: true }),
    piece("target:plug-2:work", {
      kind: "work",
      ref: "plug-2",
      plug: { count: 2, by: "torque", fine_wire: true, leaves_shell: false },
    }),
    piece("step:cover:refit", {
      kind: "refit",
      ticks: [
        { item: "fastener:0", label: "bolt", count: 4 },
        { item: "clip:0", label: "clip", count: 2 },
      ],
    }),
  ],
} as CardSheet;
const at = (marks: Mark[], meanwhile = false) => {
  const found = inHand(sheet, fold(marks), meanwhile);
  return found && [found.piece.id, found.plug?.key, found.plug?.step].filter(Boolean).join(" ");
};

test("goes from piece to piece, and meanwhile past what waits", () => {
  expect(at([])).toBe("step:cover:remove");
  const off = mark("off", { piece: "step:cover:remove" });
  const soaks = [off, mark("waiting", { piece: "wait:soak" })];
  expect(at(soaks)).toBe("wait:soak");
  expect(at(soaks, true)).toBe("target:plug-2:work plug-2 well");
  expect(at([mark("left", { piece: "step:cover:remove", why: "not there" })])).toBe("wait:soak");
});

test("takes each plug of a cylinder from its well to its torque", () => {
  const before = [mark("off", { piece: "step:cover:remove" }), mark("check", { piece: "wait:soak" })];
  const plug = (nth: number) => [
    mark("well", { plug: "plug-2", nth }),
    mark("out", { plug: "plug-2", nth, outcome: "free" }),
    mark("read", { plug: "plug-2", nth, conditions: ["normal"] }),
    mark("new", { plug: "plug-2", nth }),
    mark("in", { plug: "plug-2", nth, how: "torque" }),
  ];
  const seen = plug(1).map((_one, i, all) => at([...before, ...all.slice(0, i)]));
  expect(seen).toEqual(["well", "out", "read", "new", "in"].map((step) => `target:plug-2:work plug-2 ${step}`));
  expect(at([...before, ...plug(1)])).toBe("target:plug-2:work plug-2/2 well");
});

test("names the ticks that are open", () => {
  const state = fold([mark("tick", { piece: "step:cover:refit", item: "clip:0" })]);
  expect(openTicks(sheet.pieces[3] as CardPiece, state).map((tick) => tick.item)).toEqual(["fastener:0"]);
});

test("what comes next leaves out what is done already and what is left", () => {
  const next = (marks: Mark[]) => {
    const state = fold(marks);
    const hand = inHand(sheet, state);
    return hand && coming(sheet, state, hand).map((piece) => piece.id);
  };
  expect(next([])).toEqual(["wait:soak", "target:plug-2:work", "step:cover:refit"]);
  expect(next([mark("check", { piece: "wait:soak" })])).toEqual(["target:plug-2:work", "step:cover:refit"]);
  expect(next([mark("left", { piece: "step:cover:refit", why: "x" })])).toEqual(["wait:soak", "target:plug-2:work"]);
});
