import { expect, test } from "vitest";
import { sharing } from "./LayerList";

test("says whose a layer is, when several cylinders are in the job", () => {
  expect(sharing([1, 3, 5], [5])).toBe("");
  expect(sharing([1, 2, 3, 4, 5, 6], [5, 1])).toBe("shared");
  expect(sharing([6], [5, 6])).toBe("only 6");
  expect(sharing([5, 3], [3, 5, 1])).toBe("only 3 and 5");
  expect(sharing([2, 4], [1, 3])).toBe("");
});
