import { expect, test } from "vitest";
import { wellGrouped } from "./grouping";

test("takes what people of the locale write, and nothing that would be read as another number", () => {
  for (const text of ["181400", "181,400", "1,234.5", "9.5", "0.125", "", "-3"])
    expect([text, wellGrouped(text, "en-US")]).toEqual([text, true]);
  for (const text of ["9,5", "1,2,3", "12,34.5", "1.2.3", "181.400,5"])
    expect([text, wellGrouped(text, "en-US")]).toEqual([text, false]);
});

test("in German the comma is the decimal mark", () => {
  for (const text of ["1.234,56", "1234,56", "9,5", "181.400"])
    expect([text, wellGrouped(text, "de-DE")]).toEqual([text, true]);
  for (const text of ["1.234.56", "9.5", "1,234.56"]) expect([text, wellGrouped(text, "de-DE")]).toEqual([text, false]);
});

test("a locale that groups with a space takes any kind of space", () => {
  for (const text of ["1 234,5", "1\u202f234,5", "1\u00a0234,5"])
    expect([text, wellGrouped(text, "fr-FR")]).toEqual([text, true]);
});
