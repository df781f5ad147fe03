import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Asked, Button, Notice, Small, Strong } from "../shared/parts";
import { whenOpened } from "../shared/whenOpened";
import { heldWords, moreWords, offWords } from "./words";

const LessonDialog = whenOpened(async () => (await import("./LessonDialog")).LessonDialog);

const Box = styled.section`
  border-left: 4px solid var(--mark);
  background: var(--sheet);
  padding: 12px 16px 14px;
  margin-bottom: 20px;
  p + p {
    margin-top: 4px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin-top: 10px;
  }
  &[data-quiet] {
    border-left-color: var(--ink);
  }
`;

type Act = Parameters<typeof api.lesson>[0];

/** The lesson that waits or is in force: what it says, what it would have done, and the one press either way. */
export function LessonBox({ page }: { page: LedgerPage }) {
  const { account, format } = useSession();
  const queries = useQueryClient();
  const [isOpen, setOpen] = useState(false);
  const act = useMutation({
    mutationFn: (given: Act) => api.lesson(given),
    onSuccess: (fresh) => queries.setQueryData(["ledger"], fresh),
    onError: () => void queries.invalidateQueries({ queryKey: ["ledger"] }),
  });
  const { lesson, in_force: inForce, automatic } = page;
  if (!lesson) return null;
  const waits = !lesson.taken;
  const mayAct = account.role === "owner";
  return (
    <Box aria-label="The lesson" data-quiet={waits ? undefined : true}>
      <p>
        <Strong>{waits ? "A lesson is waiting. " : "The lesson is in force. "}</Strong>
        {heldWords(lesson.lately)}
      </p>
      <p>
        <Small>
          {offWords(lesson.lately, format)} {moreWords(lesson.lately, format)}
        </Small>
      </p>
      {inForce && (
        <p>
          <Small>
            {waits ? "An earlier one is in force: quotes" : "Quotes"} are corrected by {inForce.jobs} jobs since{" "}
            {format.day(inForce.at.slice(0, 10))}
            {inForce.by ? `, taken by ${inForce.by}` : ", taken by itself"}. Saved quotes keep what they were made with.
          </Small>
        </p>
      )}
      {act.error && (
        <Notice role="alert">
          <p>{act.error.message}</p>
        </Notice>
      )}
      <div className="acts">
        {mayAct && waits && (
          <Button $main isPending={act.isPending} onPress={() => act.mutate({ act: "take", state: lesson.state })}>
            Take it
          </Button>
        )}
        <Button onPress={() => setOpen(true)}>What changes</Button>
        {mayAct && inForce && (
          <Button isPending={act.isPending} onPress={() => act.mutate({ act: "back", lesson: inForce.id })}>
            Take it back
          </Button>
        )}
      </div>
      {mayAct && (
        <p style={{ marginTop: 8 }}>
          <Small>
            {automatic ? "What is learned is taken by itself. " : "What is learned waits for a press. "}
            <Asked isDisabled={act.isPending} onPress={() => act.mutate({ act: automatic ? "by-hand" : "automatic" })}>
              {automatic ? "Ask me each time" : "Always take it"}
            </Asked>
          </Small>
        </p>
      )}
      {isOpen && <LessonDialog lesson={lesson} onClose={() => setOpen(false)} />}
    </Box>
  );
}
