import { type MouseEvent, type PointerEvent, useRef, useState } from "react";
import type { DayJob } from "../api/client";
import { SLACK } from "./drag";

interface Carried {
  id: string;
  dx: number;
  dy: number;
}

/** Carries a job over the board with the pointer. What is let go is only proposed: nothing is moved by it. */
export function useDrag(onDrop: (job: DayJob, x: number, y: number) => void) {
  const [carried, setCarried] = useState<Carried | null>(null);
  const from = useRef<{ x: number; y: number } | null>(null);
  const hasDropped = useRef(false);
  const begin = (event: PointerEvent) => {
    hasDropped.current = false;
    from.current = { x: event.clientX, y: event.clientY };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const carry = (job: DayJob, event: PointerEvent) => {
    const start = from.current;
    if (!start || event.buttons === 0) return;
    const [dx, dy] = [event.clientX - start.x, event.clientY - start.y];
    if (!carried && Math.hypot(dx, dy) < SLACK) return;
    setCarried({ id: job.id, dx, dy });
  };
  const end = (job: DayJob, event: PointerEvent) => {
    from.current = null;
    if (!carried) return;
    setCarried(null);
    hasDropped.current = true;
    onDrop(job, event.clientX, event.clientY);
  };
  const leave = () => {
    from.current = null;
    setCarried(null);
  };
  return {
    carried,
    /** What a shape listens to that may be carried. */
    handles: (job: DayJob) => ({
      onPointerDown: begin,
      onPointerMove: (event: PointerEvent) => carry(job, event),
      onPointerUp: (event: PointerEvent) => end(job, event),
      onPointerCancel: leave,
      // The press that ends a carrying is no press on the job.
      onClickCapture: (event: MouseEvent) => {
        if (hasDropped.current) event.stopPropagation();
        hasDropped.current = false;
      },
    }),
  };
}
