import { useCallback, useEffect, useRef } from "react";

/** A function that stays the same and does what the one last handed in does: for parts that need not be drawn anew. */
export function useLatest<A extends unknown[]>(run: (...given: A) => void): (...given: A) => void {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  }, [run]);
  return useCallback((...given: A) => latest.current(...given), []);
}
