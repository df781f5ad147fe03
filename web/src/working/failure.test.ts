import { describe, expect, it } from "vitest";
import { Away, type Conflict, Refused } from "../api/client";
import { failureOf } from "./failure";

const refused = (status: number, code: string) =>
  new Refused(status, code, `${code}, said the server`, {
    error: { code, message: "", details: [] },
  } as unknown as Conflict);
const never = () => null;

describe("what kept a request from being carried out", () => {
  it("is the server being away, also when it is busy or broken", () => {
    expect(failureOf(new Away("no"), never)).toEqual({ kind: "away" });
    expect(failureOf(refused(503, "busy"), never)).toEqual({ kind: "away" });
    expect(failureOf(refused(429, "slow_down"), never)).toEqual({ kind: "away" });
  });

  it("is a refusal in the server's own words", () => {
    expect(failureOf(refused(400, "invalid_body"), never)).toEqual({
      kind: "refused",
      message: "invalid_body, said the server",
    });
  });

  it("is a clash where the refusal holds the other's version", () => {
    const clash = { kind: "clash", clash: { kind: "draft", message: "", theirs: 7 } } as const;
    expect(failureOf<number>(refused(409, "draft_conflict"), (error) => (error.status === 409 ? clash : null))).toBe(
      clash,
    );
  });

  it("says no more than that of what it does not know", () => {
    expect(failureOf(new TypeError("x is undefined"), never)).toEqual({ kind: "refused", message: "Storing failed." });
  });
});
