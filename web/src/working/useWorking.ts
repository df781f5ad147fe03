import { useCallback, useEffect, useRef, useState } from "react";
import { useLatest } from "../shared/useLatest";
import { type Command, type Event, type Failure, next, type State, unsent } from "./workingCopy";

/** What the reducer's commands are carried out with. */
export interface Server<C, A, R> {
  store: (
    version: number,
    content: C,
    rebase: number | undefined,
    last: boolean,
  ) => Promise<{ answer: A; version: number }>;
  save: (version: number, answer: A, key: string) => Promise<R>;
  failure: (error: unknown) => Failure<C>;
}

const RETRY_MS = 2_000;

/** Carries out a working copy's commands: requests, a timer, and what is left when the page is closed. */
export function useWorking<C, A, R>(initial: () => State<C, A>, server: Server<C, A, R>, onSaved: (result: R) => void) {
  const [state, setState] = useState(initial);
  const current = useRef(state);
  const timer = useRef<number | undefined>(undefined);
  const saved = useLatest(onSaved);
  const sendRef = useRef<(event: Event<C, A, R>) => void>(() => undefined);

  const run = useCallback(
    (command: Command<C, A>) => {
      const send = (event: Event<C, A, R>) => sendRef.current(event);
      switch (command.do) {
        case "store": {
          const { version, content, rebase, last = false } = command;
          const sent = server.store(version, content, rebase, last);
          if (last) void sent.catch(() => undefined);
          else
            void sent.then(
              (stored) => send({ type: "stored", ...stored }),
              (error) => send({ type: "storeFailed", failure: server.failure(error) }),
            );
          break;
        }
        case "save":
          void server.save(command.version, command.answer, command.key).then(
            (result) => {
              saved(result);
              send({ type: "saved", result });
            },
            (error) => send({ type: "saveFailed", failure: server.failure(error) }),
          );
          break;
        case "retryLater":
          window.clearTimeout(timer.current);
          timer.current = window.setTimeout(() => send({ type: "again" }), RETRY_MS);
          break;
      }
    },
    [server, saved],
  );

  const send = useCallback(
    (event: Event<C, A, R>) => {
      const [after, commands] = next(current.current, event);
      current.current = after;
      setState(after);
      commands.forEach(run);
    },
    [run],
  );
  useEffect(() => {
    sendRef.current = send;
  }, [send]);

  // Closing the page: whatever has not gone out yet goes out with it; while the server is away, the browser asks first.
  useEffect(() => {
    const leave = () => sendRef.current({ type: "left" });
    const warn = (event: BeforeUnloadEvent) => {
      if (current.current.away && unsent(current.current)) event.preventDefault();
    };
    const online = () => sendRef.current({ type: "again" });
    window.addEventListener("pagehide", leave);
    window.addEventListener("beforeunload", warn);
    window.addEventListener("online", online);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("beforeunload", warn);
      window.removeEventListener("online", online);
      window.clearTimeout(timer.current);
      leave();
    };
  }, []);

  /** Changes the newest content, so that quick presses never lose one. */
  const edit = useCallback(
    (change: (content: C) => C) => send({ type: "edited", content: change(current.current.content) }),
    [send],
  );
  return { state, send, edit };
}
