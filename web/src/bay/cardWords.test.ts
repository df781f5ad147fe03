import { expect, test } from "vitest";
import type { CardState, JobCard } from "../api/client";
import { formatter } from "../shared/format";
import { below, handedIn, pace } from "./cardWords";
import { fold } from "./fold";
import { mark } from "./offlineQueue";

const format = formatter({
  locale: "en-GB",
  distance_unit: "km",
  currency: "EUR",
  currency_exponent: 2,
  time_zone: "UTC",
});
const now = Date.parse("2026-11-26T08:00:00Z");

test("says when it would be ready: before the start in minutes, then as a time, then when it was", () => {
  const started = { started_at: "2026-11-26T07:00:00Z" } as CardState;
  const done = { ...started, finished_at: new Date().toISOString() } as CardState;
  expect(pace(90, fold([]), format, now)).toBe("90 min on the clock");
  expect(pace(90, started, format, Date.now())).toMatch(/^at this pace (\d{1,2}:\d\d|\d+ \w+)$/);
  expect(pace(0, done, format, now)).toMatch(/^done at \d{1,2}:\d\d$/);
});

test("says what is not handed in, and why", () => {
  const at = { waiting: 0, isAway: false, isSignedOut: false };
  expect(handedIn(at)).toBe("all handed in");
  expect(handedIn({ ...at, isAway: true })).toBe("no connection");
  expect(handedIn({ ...at, waiting: 1 })).toBe("1 mark not handed in yet");
  expect(handedIn({ ...at, waiting: 3, isAway: true })).toBe("3 marks not handed in yet, no connection");
  expect(handedIn({ ...at, waiting: 3, isSignedOut: true })).toBe("3 marks not handed in yet, signed out");
  expect(handedIn({ ...at, isSignedOut: true })).toBe("signed out");
});

test("below the map: what is done, how many plugs in what order, what goes back up", () => {
  const card = {
    standing: { time: { taken: 12, reckoned_done: 10 } },
    sheet: {
      pieces: [
        { id: "a", kind: "refit", minutes: 8 },
        { id: "b", kind: "refit", minutes: 5 },
        { id: "c", kind: "work", minutes: 9 },
      ],
      plugs: [{ key: "plug-5" }],
      schools: { order: "one-at-a-time" },
    },
  } as unknown as JobCard;
  expect(below(card, fold([mark("on", { piece: "a" })]), format)).toEqual([
    "so far 12 min, 10 reckoned",
    "1 plug, one bore open at a time",
    "back up: 5 min",
  ]);
});
