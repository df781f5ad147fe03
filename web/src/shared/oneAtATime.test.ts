import { expect, test } from "vitest";
import { oneAtATime } from "./oneAtATime";

/** A work whose ends are given by hand. */
function slow() {
  const ends: (() => void)[] = [];
  const inTurn = oneAtATime();
  const run = () => inTurn(() => new Promise((resolve) => ends.push(resolve)));
  return { ends, run };
}

test("a work asked for while it is under way is done once more behind it, and no more", async () => {
  const { ends, run } = slow();
  const whole = run();
  void run();
  void run();
  expect(ends.length).toBe(1);
  ends[0]!();
  await Promise.resolve();
  await new Promise((resolve) => setTimeout(resolve));
  expect(ends.length).toBe(2);
  ends[1]!();
  await whole;
  expect(ends.length).toBe(2);
});

test("a work that failed can be asked for again", async () => {
  let times = 0;
  const inTurn = oneAtATime();
  const run = () => inTurn(() => (++times === 1 ? Promise.reject(new Error("away")) : Promise.resolve()));
  await expect(run()).rejects.toThrow("away");
  await run();
  expect(times).toBe(2);
});
