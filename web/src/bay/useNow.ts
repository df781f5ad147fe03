import { useEffect, useState } from "react";

const EVERY = 10_000;

/** The moment it is, brought up to date every few seconds. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), EVERY);
    return () => clearInterval(clock);
  }, []);
  return now;
}

/**
 * Whole minutes of a clock that are left; it never says more than the clock has.
 * @param since when it began, as the mark says
 */
export const minutesLeft = (minutes: number, since: string, now: number): number =>
  Math.ceil(minutes - Math.max(0, now - Date.parse(since)) / 60_000);
