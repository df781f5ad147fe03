import { expect, test, vi } from "vitest";
import { Away, type Conflict, Refused } from "../api/client";
import { sendPictures } from "./sendPictures";

const refused = (status: number) =>
  new Refused(status, "x", "no", { error: { code: "x", message: "no", details: [] } } as unknown as Conflict);

async function left(answer: () => Promise<unknown>) {
  const pictures: Record<string, string> = { a: "1", b: "2" };
  const done = vi.fn();
  await sendPictures("job", pictures, done, answer).catch(() => undefined);
  return [Object.keys(pictures), done.mock.calls.length];
}

test("a picture leaves the device when the server has it", async () => {
  expect(await left(() => Promise.resolve({}))).toEqual([[], 2]);
});

test.each([404, 409, 422])("or can never have it (%i)", async (status) => {
  expect(await left(() => Promise.reject(refused(status)))).toEqual([[], 2]);
});

test.each([401, 429, 500, 503])("and stays on every other answer (%i)", async (status) => {
  expect(await left(() => Promise.reject(refused(status)))).toEqual([["a", "b"], 0]);
});

test("and while nobody answers", async () => {
  expect(await left(() => Promise.reject(new Away("away")))).toEqual([["a", "b"], 0]);
});
