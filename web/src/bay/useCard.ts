import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, Away, type HandedIn, type JobCard, type Mark, Refused, type Session } from "../api/client";
import { device, deviceName } from "./cardStore";
import { sendPictures } from "./sendPictures";
import { signedAnew } from "./signedAnew";
import { oneAtATime } from "../shared/oneAtATime";
import { kept as after, type Happened, type Kept, stateOf } from "./offlineQueue";

const AGAIN_AFTER = 5_000;
const AT_ONCE = 400;

export type Refusal = HandedIn["refused"][number];

/**
 * One job's card on this device: opened from what is kept here, brought up to date when the server is there, marks
 * kept here until they are handed in. Nothing waits for the network but the handing in.
 */
export function useCard(job: string, session: Session) {
  const [card, setCard] = useState<Kept | null>(null);
  const [isAway, setAway] = useState(false);
  const [isSignedOut, setSignedOut] = useState(false);
  const [problem, setProblem] = useState<Error | null>(null);
  const [refused, setRefused] = useState<Refusal[]>([]);
  const now = useRef<Kept | null>(null);
  const pictures = useRef<Record<string, string>>({});
  const [unsent, setUnsent] = useState(0);

  const keepHere = useCallback(
    (next: Kept) => {
      const ended = next.card.job.finished_at ?? next.card.job.handed_over_at;
      const over = ended && next.queue.length === 0 && Object.keys(pictures.current).length === 0;
      const write = over ? device.forget(job) : device.keep({ job, kept: next, session, pictures: pictures.current });
      write.catch(() => undefined);
    },
    [job, session],
  );
  const happened = useCallback(
    (what: Happened) => {
      const next = after(now.current, what);
      now.current = next;
      setCard(next);
      if (next) keepHere(next);
    },
    [keepHere],
  );

  const handInOnce = useCallback(async () => {
    try {
      await sendPictures(job, pictures.current, () => {
        setUnsent(Object.keys(pictures.current).length);
        if (now.current) keepHere(now.current);
      });
      const queue = now.current?.queue ?? [];
      if (queue.length > 0) {
        const answer = await signedAnew(() => api.handIn(job, deviceName(), queue.slice(0, 400)));
        happened({ kind: "handed-in", answer });
        if (answer.refused.length > 0) setRefused((before) => [...before, ...answer.refused]);
      } else happened({ kind: "fetched", card: await api.job(job) });
      setAway(false);
      setSignedOut(false);
      setProblem(null);
    } catch (error) {
      setAway(error instanceof Away);
      setSignedOut(error instanceof Refused && error.status === 401);
      if (error instanceof Refused && !now.current) setProblem(error);
    }
  }, [job, happened, keepHere]);
  const [inTurn] = useState(oneAtATime);
  const handIn = useCallback(() => inTurn(handInOnce), [inTurn, handInOnce]);

  useEffect(() => {
    let closed = false;
    void device
      .card(job)
      .catch(() => undefined)
      .then((found) => {
        if (closed) return;
        if (found && !now.current) {
          now.current = found.kept;
          pictures.current = found.pictures;
          setUnsent(Object.keys(found.pictures).length);
          setCard(found.kept);
        }
        void handIn();
      });
    return () => {
      closed = true;
    };
  }, [job, handIn]);

  useEffect(() => {
    const again = setInterval(() => {
      if (isAway || (now.current?.queue.length ?? 0) > 0) void handIn();
    }, AGAIN_AFTER);
    const back = () => void handIn();
    window.addEventListener("online", back);
    const source = new EventSource("/api/events");
    source.addEventListener("changed", back);
    source.addEventListener("listening", back); // what changed before anybody listened
    return () => {
      clearInterval(again);
      window.removeEventListener("online", back);
      source.close();
    };
  }, [handIn, isAway]);

  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const press = useCallback(
    (...marks: Mark[]) => {
      happened({ kind: "pressed", marks });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void handIn(), AT_ONCE);
    },
    [happened, handIn],
  );
  const keepPicture = useCallback(
    (id: string, data: string) => {
      pictures.current = { ...pictures.current, [id]: data };
      setUnsent(Object.keys(pictures.current).length);
      if (now.current) keepHere(now.current);
    },
    [keepHere],
  );
  const renew = useCallback((fresh: JobCard) => happened({ kind: "fetched", card: fresh }), [happened]);
  const state = useMemo(() => card && stateOf(card), [card]);

  return {
    card: card?.card ?? null,
    marks: useMemo(() => (card ? [...card.card.marks, ...card.queue] : []), [card]),
    state,
    waiting: (card?.queue.length ?? 0) + unsent,
    isAway,
    isSignedOut,
    problem,
    refused,
    dismiss: () => setRefused([]),
    press,
    keepPicture,
    renew,
    handIn,
  };
}
