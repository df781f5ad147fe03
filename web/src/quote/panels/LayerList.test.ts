import { expect, test } from "vitest";
import { cautionsOfWork, sharing } from "./LayerList";

test("says whose a layer is, when several cylinders are in the job", () => {
  expect(sharing([1, 3, 5], [5])).toBe("");
  expect(sharing([1, 2, 3, 4, 5, 6], [5, 1])).toBe("shared");
  expect(sharing([6], [5, 6])).toBe("only 6");
  expect(sharing([5, 3], [3, 5, 1])).toBe("only 3 and 5");
  expect(sharing([2, 4], [1, 3])).toBe("");
});

test("a caution that stands at a step is not said again at the work of the same name", () => {
  const task = (ref: string, label: string) =>
    ({ ref, label, kind: "work" }) as Parameters<typeof cautionsOfWork>[0][number];
  const cautions = [
    { text: "Key out.", refs: ["coil-5", "coil-5"], at: ["Coil 5"] },
    { text: "Engine cold.", refs: ["plug-5"], at: ["Plug 5"] },
  ];
  const tasks = [task("plug-5", "Plug 5"), task("coil-5", "Coil 5")];
  expect(cautionsOfWork(tasks, cautions, ["cover", "coil-5"])).toEqual([{ label: "Plug 5", text: "Engine cold." }]);
  expect(cautionsOfWork(tasks, cautions, ["cover"])).toEqual([
    { label: "Plug 5", text: "Engine cold." },
    { label: "Coil 5", text: "Key out." },
  ]);
});
