import { expect, test } from "vitest";
import type { Finding } from "../../api/client";
import { said, tagOfFindings } from "./findings";

const finding = (rest: Partial<Finding>): Finding => ({
  id: "1",
  cylinder: 2,
  kind: "bolt-missing",
  words: "",
  at: "2026-01-01T10:00:00Z",
  by: null,
  ...rest,
});

test("says a finding by its kind and what was said of it", () => {
  expect(said(finding({}))).toBe("bolt missing");
  expect(said(finding({ kind: "part-renewed", words: "coil 3, ours, in March" }))).toBe(
    "part renewed: coil 3, ours, in March",
  );
  expect(said(finding({ kind: "other", words: "owner wants the cover left off" }))).toBe(
    "owner wants the cover left off",
  );
});

test("stands at its own cylinder, the first and how many more", () => {
  const found = [finding({}), finding({ id: "2", kind: "oil-in-well" }), finding({ id: "3", cylinder: null })];
  expect(tagOfFindings(found, 2)).toBe("bolt missing +1");
  expect(tagOfFindings(found, 3)).toBe("");
  expect(tagOfFindings([finding({ kind: "other", words: "long words" })], 2)).toBe("note");
});
