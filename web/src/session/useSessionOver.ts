import { useEffect, useRef, useState } from "react";
import { askToSignInAgain } from "../api/sessionOver";

/**
 * Whether somebody has to sign in again before waiting requests go on.
 * @param isSignedIn nobody is asked before anybody was in
 */
export function useSessionOver(isSignedIn: boolean): { isOver: boolean; goOn: () => void } {
  const [isOver, setOver] = useState(false);
  const waiting = useRef<{ promise: Promise<void>; goOn: () => void } | null>(null);
  useEffect(() => {
    if (!isSignedIn) return;
    askToSignInAgain(() => {
      if (!waiting.current) {
        let goOn = () => undefined as void;
        const promise = new Promise<void>((resolve) => (goOn = resolve));
        waiting.current = { promise, goOn };
        setOver(true);
      }
      return waiting.current.promise;
    });
    return () => askToSignInAgain(null);
  }, [isSignedIn]);
  const goOn = () => {
    waiting.current?.goOn();
    waiting.current = null;
    setOver(false);
  };
  return { isOver, goOn };
}
