import { expect, test } from "vitest";
import cases from "../../../formats/card-cases.json";
import type { CardState, Mark } from "../api/client";
import { fold } from "./fold";

test.each(cases.map((one, index) => [index, one] as const))("folds case %i as the core does", (_index, one) => {
  expect(fold(one.events as Mark[])).toEqual(one.state as unknown as CardState);
});

test("says the same whatever arrives first, and however often", () => {
  const all = (cases.at(-1)?.events ?? []) as Mark[];
  expect(fold([...all].reverse())).toEqual(fold(all));
  expect(fold([...all, ...all])).toEqual(fold(all));
});
