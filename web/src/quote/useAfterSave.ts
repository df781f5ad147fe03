import { useEffect, useRef } from "react";
import { useLatest } from "../shared/useLatest";

/** What is done with what is saved: asked for while a save is under way it waits, so that nobody gets the old one. */
export function useAfterSave(saving: boolean, act: () => void): () => void {
  const isWanted = useRef(false);
  const run = useLatest(act);
  useEffect(() => {
    if (saving || !isWanted.current) return;
    isWanted.current = false;
    run();
  }, [saving, run]);
  return useLatest(() => {
    if (saving) isWanted.current = true;
    else run();
  });
}
