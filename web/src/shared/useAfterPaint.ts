import { useEffect, useRef, useState } from "react";

/** Where no frame is painted (a page in the background), how long to wait for one. */
const UNSEEN_MS = 200;

/** Runs something once the next frame is painted; gives the way to call it off. */
function afterPaint(run: () => void): () => void {
  const painted = new MessageChannel();
  const frame = requestAnimationFrame(() => painted.port2.postMessage(null));
  const unseen = window.setTimeout(() => once(), UNSEEN_MS);
  const callOff = () => {
    cancelAnimationFrame(frame);
    window.clearTimeout(unseen);
    painted.port1.close();
  };
  const once = () => {
    callOff();
    run();
  };
  painted.port1.onmessage = once;
  return callOff;
}

/**
 * What was handed in, once whatever comes first is on the screen. While the two differ, what is drawn from it belongs
 * to something older.
 * @param first what is painted before, the same object until it changes
 */
export function useAfterPaint<T>(value: T, first: unknown): T {
  const [drawn, setDrawn] = useState(value);
  const painted = useRef(first);
  useEffect(
    () =>
      afterPaint(() => {
        painted.current = first;
      }),
    [first],
  );
  useEffect(() => {
    if (drawn === value) return undefined;
    if (painted.current !== first) return afterPaint(() => setDrawn(value));
    setDrawn(value);
    return undefined;
  }, [drawn, value, first]);
  return drawn;
}
