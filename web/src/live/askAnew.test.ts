import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, test } from "vitest";
import { askAnew } from "./askAnew";

test("what changed while a page looked for the first time is looked for once more", async () => {
  const queries = new QueryClient();
  const answers: ((value: string) => void)[] = [];
  const queryFn = () => new Promise<string>((resolve) => answers.push(resolve));
  const seen: (string | undefined)[] = [];
  const page = new QueryObserver(queries, { queryKey: ["counter"], queryFn });
  const leave = page.subscribe((result) => seen.push(result.data));
  const asked = askAnew(queries, ["counter", "jobs"]);
  answers[0]!("before");
  await new Promise((resolve) => setTimeout(resolve, 10));
  expect(answers.length).toBe(2);
  answers[1]!("after");
  await asked;
  expect(seen.at(-1)).toBe("after");
  leave();
});

test("what is shown is asked for at once", async () => {
  const queries = new QueryClient();
  let times = 0;
  const page = new QueryObserver(queries, { queryKey: ["jobs"], queryFn: () => Promise.resolve(++times) });
  const leave = page.subscribe(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 10));
  await askAnew(queries, ["jobs"]);
  expect(times).toBe(2);
  leave();
});
