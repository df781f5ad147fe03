import { expect, it } from "vitest";
import { strokeKeys } from "./strokeKeys";

it("calls a piece the same whatever lies before it, and no two alike", () => {
  const cover = { kind: "remove", ref: "cover" } as const;
  const bleed = { kind: "closing", ref: "hose" } as const;
  const alone = strokeKeys([cover, bleed, bleed]);
  expect(new Set(alone).size).toBe(3);
  expect(strokeKeys([{ kind: "wait", ref: "soak" } as const, cover, bleed, bleed]).slice(1)).toEqual(alone);
});
