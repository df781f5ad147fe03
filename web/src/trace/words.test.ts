import { describe, expect, it } from "vitest";
import type { TraceSheet } from "../api/client";
import {
  adviceWords,
  causeWords,
  codeWords,
  doneWords,
  inHundred,
  leadWords,
  toSay,
  whyThis,
  readCounters,
  counterWords,
  isNoProof,
} from "./words";

const coil = { cause: "coil", cylinders: [3], now: [2], target: "coil-2", chance: 0.93 };
const sheet = (rest: Partial<TraceSheet>) =>
  ({ hypotheses: [coil], tests: [], evidence: [], ...rest }) as unknown as TraceSheet;

describe("what a trace says", () => {
  it("calls what hangs on a coil a boot, and what runs to a plug a wire", () => {
    expect(causeWords({ cause: "wire", part: "boot" })).toBe("boot");
    expect(causeWords({ cause: "wire", part: "wire" })).toBe("wire");
  });

  it("says where a part sits now that was exchanged", () => {
    expect(leadWords(coil)).toBe("coil 3, which sits at 2 now");
    const repair = { target: "coil-2", label: "Coil 2", cured: 0.958 };
    expect(adviceWords(sheet({ advice: "repair", repair }))).toBe(
      "It is known: Coil 2 mends it in 96 of 100 such cars. Coil 3 sits there now.",
    );
    expect(adviceWords(sheet({ advice: "repair", repair: null }))).toContain("No part of this engine's list mends it");
  });

  it("tells the customer what was tested, what it showed, what it rules out", () => {
    const evidence = [
      { from: "codes", before: 0.1, after: 0.4 },
      { from: "test", test: "swap-coil", cylinder: 3, with: 2, outcome: "moved", before: 0.4, after: 0.93 },
    ];
    const wiring = { cause: "wiring", cylinders: [3], chance: 0.01 };
    expect(toSay(sheet({ evidence, hypotheses: [coil, wiring] }))).toEqual([
      "We exchanged the coil of cylinder 3 with that of 2, and the fault went with it.",
      "So it is coil 3, which sits at 2 now.",
      "Hardly: wiring or driver.",
    ]);
  });

  it("reads a catalyst code beside a misfire as the misfire's", () => {
    expect(codeWords({ code: "P0420", says: "catalyst", status: "stored" })).toContain("never sell one");
    expect(codeWords({ code: "P0303", says: "cylinder", cylinder: 3, status: "stored" })).toBe(
      "P0303: cylinder 3 misfires",
    );
    expect(codeWords({ code: "P0303", says: "cylinder", cylinder: 3, status: "permanent" })).toContain(
      "clears it itself",
    );
  });

  it("gives a swap's outcome by which way the part goes, and never calls a chance certain", () => {
    expect(doneWords({ test: "swap-plug", cylinder: 2, with: 4, outcome: "moved" })).toBe(
      "Exchange plug 2 with 4: went along",
    );
    expect(inHundred(0.9996)).toBe("99 %");
    expect(inHundred(0.001)).toBe("<1 %");
  });

  it("says why this test, by what the next best tells for its time", () => {
    const test = { test: "read-plug", cylinder: 3, bits: 1, minutes: 16, lost_minutes: 4, bits_per_minute: 0.2 };
    const other = { ...test, test: "balance-injector", minutes: 12, bits_per_minute: 0.03 };
    expect(whyThis([test, other], String)).toBe(
      "16 min on this engine, 12 of them the repair takes anyway. " +
        "Balance injector 3 takes 12 and tells 15 % as much for its time.",
    );
    expect(whyThis([{ ...test, lost_minutes: 16 }], String)).toBe("16 min on this engine.");
  });

  it("tells what was done in sentences a customer follows", () => {
    const done = (test: string, outcome: string) => ({
      from: "test",
      test,
      cylinder: 3,
      outcome,
      before: 0.1,
      after: 0.2,
    });
    const evidence = [done("read-plug", "wet"), done("compression", "low"), done("look-coil", "cracked")];
    expect(toSay(sheet({ evidence })).slice(0, 3)).toEqual([
      "We took out the plug of cylinder 3 and read it: wet.",
      "We measured the compression of cylinder 3: low.",
      "We looked at the coil and boot of cylinder 3: cracked.",
    ]);
  });
});

it("reads misfires counted for each cylinder, and asks again where it cannot", () => {
  expect(readCounters("3: 214, 1: 4")).toEqual({ 3: 214, 1: 4 });
  expect(readCounters("")).toEqual({});
  expect(readCounters("three: 214")).toBeNull();
  expect(counterWords({ 3: 214 })).toBe("3: 214");
});

it("knows when a fault that was gone proves nothing", () => {
  expect(isNoProof({ outcome: "none", run: "otherwise" })).toBe(true);
  expect(isNoProof({ outcome: "none", run: "as-it-misfires" })).toBe(false);
  expect(isNoProof({ outcome: "moved", run: "otherwise" })).toBe(false);
});
