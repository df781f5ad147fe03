import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { api, type CounterPage } from "../api/client";
import { WHYS } from "../bay/whys";
import { useSession } from "../session/SessionGate";
import { type Formatter, list } from "../shared/format";
import { Button, Heading, Mono, Notice, Small, Unseen } from "../shared/parts";
import { MiniDescent } from "./MiniDescent";
import { Columns, NeedRows } from "./rows";

interface Props {
  needs: CounterPage;
  /** Starts a quote for a car. */
  onStart: (vehicle: string) => void;
  isPending: boolean;
}

type Waiting = CounterPage["waiting"][number];
type Agreed = CounterPage["agreed"][number];

/** What needs somebody now, each with the one next act. */
export function Needs({ needs, onStart, isPending }: Props) {
  const { account, format } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const settle = useMutation({
    mutationFn: api.settleFollowUp,
    onSuccess: (counter) => queries.setQueryData(["counter"], counter),
  });
  const writes = account.role !== "technician";
  const yes = (quote: string) => void navigate(`/quotes/${quote}/yes`);
  const act = (word: string, about: string, run: () => void, main = false) =>
    writes ? (
      <Button onPress={run} $main={main} isPending={isPending}>
        {word} <Unseen>{about}</Unseen>
      </Button>
    ) : (
      <span />
    );
  const read = useMutation({
    mutationFn: api.readNo,
    onSuccess: (counter) => queries.setQueryData(["counter"], counter),
  });
  const ask = useMutation({
    mutationFn: api.askWays,
    onSuccess: ({ quote_id }) => void navigate(`/quotes/${quote_id}/yes`),
  });
  const {
    stopped,
    sinking,
    questions,
    undelivered,
    waiting,
    lapsed,
    declined,
    agreed,
    unsent,
    due,
    follow_ups,
    unbilled,
    overdue,
  } = needs;
  const inWork = agreed.filter((row) => row.started_at && !row.finished_at);
  const ready = agreed.filter((row) => row.finished_at);
  const ahead = agreed.filter((row) => !row.started_at);
  const card = (row: Agreed) => (
    <Button onPress={() => void navigate(`/bay/${row.job_id}`)}>
      Card <Unseen>of job {row.job}</Unseen>
    </Button>
  );
  const ours = [stopped, sinking, questions, undelivered, waiting, lapsed, declined, unsent];
  const nothing = [...ours, unbilled, overdue, agreed, due, follow_ups].every((list) => list.length === 0);
  if (nothing)
    return (
      <Notice style={{ marginTop: 22 }}>
        <p>Nothing waits. Find a car above and start its quote; what you send and what is agreed will stand here.</p>
      </Notice>
    );

  return (
    <Columns>
      <div>
        <Part title="Stopped, above what was agreed" count={stopped.length}>
          {stopped.map((row) => (
            <Row key={row.job_id} plate={row.plate} who={happenedWords(row.happened)} wish={row.wishes}>
              {row.customer} · job {row.job} ·{" "}
              {row.so_far_cents !== null && `${format.money(row.so_far_cents)}, above the agreed `}
              {format.money(row.limit_cents)}
              {row.asked && " · asked, no answer yet"}
              {row.phone && ` · ${row.phone}`}
              {row.asked
                ? act("Look", `at what ${row.customer} was asked`, () => yes(row.quote_id))
                : act("Ask", `${row.customer} how to go on with job ${row.job}`, () => ask.mutate(row.job_id), true)}
            </Row>
          ))}
        </Part>
        {ask.error && (
          <Notice role="alert">
            <p>{ask.error.message}</p>
          </Notice>
        )}
        <Part title="Will not be ready in time" count={sinking.length}>
          {sinking.map((row) => (
            <Row key={row.id} plate={row.plate} who={row.customer ?? row.title} wish={null}>
              {row.promise && format.wall(row.promise)} holds {Math.round((row.chance ?? 0) * 100)} times in 100
              {row.ready && ` · ready ${format.wall(row.ready)}`}
              {row.call_by && ` · call by ${format.wall(row.call_by)}`}
              {row.phone && ` · ${row.phone}`}
              {act("Look", `at the day of ${row.customer ?? row.plate}`, () => void navigate("/day"), true)}
            </Row>
          ))}
        </Part>
        <Part title="They ask" count={questions.length}>
          {questions.map((row) => (
            <Row key={row.id} plate={row.plate} who={row.customer} wish={row.wishes}>
              “{row.words}” · {format.lately(row.at)}
              {row.phone && ` · ${row.phone}`}
              {act("Answer", `${row.customer} on quote ${row.number}`, () => yes(row.quote_id))}
            </Row>
          ))}
        </Part>
        <Part title="Did not arrive" count={undelivered.length}>
          {undelivered.map((row) => (
            <Row key={row.offer_id} plate={row.plate} who={row.customer} wish={row.wishes}>
              {row.channel === "text" ? "the text" : "the mail"} to {row.address}{" "}
              {row.state === "bounced" ? "came back" : "did not get through"} · {format.lately(row.at)}
              {act("Look", `at what did not reach ${row.customer}`, () => yes(row.quote_id))}
            </Row>
          ))}
        </Part>
        <Part title="Waiting for a yes" count={waiting.length}>
          {waiting.map((row) => (
            <Row key={row.quote_id} plate={row.plate} who={row.customer} wish={row.wishes}>
              {offered(row, format)} · {sent(row, format)}
              {act("Read out", `quote ${row.number} to ${row.customer}`, () => yes(row.quote_id))}
            </Row>
          ))}
        </Part>
        <Part title="Lapsed without an answer" count={lapsed.length}>
          {lapsed.map((row) => (
            <Row key={row.quote_id} plate={row.plate} who={row.customer} wish={row.wishes}>
              {offered(row, format)} · held until {format.lately(row.until)}
              {act("Ask again", `${row.customer} about quote ${row.number}`, () => yes(row.quote_id))}
            </Row>
          ))}
        </Part>
        <Part title="They said no" count={declined.length}>
          {declined.map((row) => (
            <Row key={row.offer_id} plate={row.plate} who={row.customer} wish={row.wishes}>
              {row.reason ? `“${row.reason}”` : "without a reason"} · {offered(row, format)} · {format.lately(row.at)}
              {" · "}
              <Link to={`/quotes/${row.quote_id}/yes`}>quote {row.number}</Link>
              {act("Read", `the no of ${row.customer} to quote ${row.number}`, () => read.mutate(row.offer_id))}
            </Row>
          ))}
        </Part>
        <Part title="Saved, not offered yet" count={unsent.length}>
          {unsent.map((row) => (
            <Row key={row.id} plate={row.plate} who={row.customer ?? "No owner noted"}>
              {row.summary} · {row.total_cents === null ? "" : `${format.money(row.total_cents)} · `}
              {format.lately(row.updated_at)}
              {act("Offer", `quote ${row.number}`, () => yes(row.id))}
            </Row>
          ))}
        </Part>
      </div>
      <div>
        <Part title="Ready to hand over" count={ready.length}>
          {ready.map((row) => (
            <Row key={row.job} plate={row.plate} who={row.title} wish={row.wishes}>
              {row.customer} · done {format.lately(row.finished_at ?? row.at)}
              {row.phone && ` · ${row.phone}`}
              {card(row)}
            </Row>
          ))}
        </Part>
        <Part title="In the bay" count={inWork.length}>
          {inWork.map((row) => (
            <Row key={row.job} plate={row.plate} who={row.title} descent={row.descent} done={row.done_minutes}>
              {row.called_off && "Called off · "}
              {row.customer} · since {format.lately(row.started_at ?? row.at)}
              {row.paused && ` · ${WHYS.find(([why]) => why === row.paused)?.[1] ?? row.paused}`}
              {row.found > 0 && ` · found ${row.found === 1 ? "something" : `${row.found} things`}`}
              {card(row)}
            </Row>
          ))}
        </Part>
        <Part title="Agreed, for the bay" count={ahead.length}>
          {ahead.map((row) => (
            <Row key={row.job} plate={row.plate} who={row.title} descent={row.descent}>
              {row.customer} · job {row.job} · {format.money(row.agreed_cents)}, not above{" "}
              {format.money(row.limit_cents)}
              {card(row)}
            </Row>
          ))}
        </Part>
        <Part title="Handed over, to bill" count={unbilled.length}>
          {unbilled.map((row) => (
            <Row key={row.job_id} plate={row.plate} who={row.customer ?? row.title}>
              {row.title} · agreed {format.money(row.agreed_cents)} · handed over {format.lately(row.at)}
              {act("Bill", `job ${row.job}`, () => void navigate(`/bills/${row.job_id}`))}
            </Row>
          ))}
        </Part>
        <Part title="To be paid, overdue" count={overdue.length}>
          {overdue.map((row) => (
            <Row key={row.job_id} plate={row.plate} who={row.payer}>
              {format.money(row.owed_cents)} of bill {row.number} · due {format.day(row.due_on)}
              {row.phone && ` · ${row.phone}`}
              {act("Look", `at bill ${row.number}`, () => void navigate(`/bills/${row.job_id}`))}
            </Row>
          ))}
        </Part>
        <Part title="To look at again" count={follow_ups.length}>
          {follow_ups.map((row) => (
            <Row key={row.id} plate={row.plate} who={row.customer ?? row.words}>
              {row.customer && row.words} · {format.day(row.on)}
              {row.phone && ` · ${row.phone}`}
              {act("Seen to", row.words, () => settle.mutate(row.id))}
            </Row>
          ))}
        </Part>
        <Part title="Due back" count={due.length}>
          {due.map((row) => (
            <Row key={row.vehicle_id} plate={row.plate} who={row.customer ?? row.description}>
              {row.over_km
                ? `plugs due ${format.distance(row.over_km)} ago`
                : `plugs ${row.past ? "were due" : "due by"} ${format.day(row.on)}`}
              {row.phone && ` · ${row.phone}`}
              {act("Quote", `the plugs of ${row.plate}`, () => onStart(row.vehicle_id))}
            </Row>
          ))}
        </Part>
      </div>
    </Columns>
  );
}

type Happened = CounterPage["stopped"][number]["happened"];

const GAVE: Record<string, string> = { broken: "broke", thread: "took its thread along" };

/** "Plug 3 and plug 5 broke; plug 7 took its thread along" */
const happenedWords = (rows: Happened): string =>
  [...new Set(rows.map((row) => row.kind))]
    .map((kind) => {
      const named = list(
        rows.filter((row) => row.kind === kind).map((row, i) => (i > 0 ? lower(row.label) : row.label)),
      );
      return GAVE[kind] ? `${named} ${GAVE[kind]}` : named;
    })
    .join("; ");

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** What was offered: one amount, or one of several. */
const offered = (row: Waiting, format: Formatter) =>
  `${row.supplement ? "a supplement, " : ""}${row.scopes.map((scope) => format.money(scope.total_cents)).join(" or ")}`;

/** When it went out, and whether anybody has looked. */
function sent(row: Waiting, format: Formatter): string {
  const since = `since ${format.lately(row.sent_at)}`;
  if (row.channel === "phone" || row.channel === "paper")
    return `${since}, ${row.channel === "phone" ? "on the phone" : "on paper"}`;
  return `${since}, ${row.seen_at ? `looked at ${format.lately(row.seen_at)}` : "not looked at"}`;
}

function Part({ title, count, children }: { title: string; count: number; children: ReactNode }) {
  if (count === 0) return null;
  return (
    <section aria-label={title}>
      <Heading style={{ justifyContent: "flex-start", gap: 7 }}>
        <span>{title}</span>
        <Small>{count}</Small>
      </Heading>
      <NeedRows>{children}</NeedRows>
    </section>
  );
}

interface RowProps {
  plate: string;
  who: string;
  wish?: string | null;
  descent?: Agreed["descent"];
  /** How far along it the bay has come, in minutes. */
  done?: number | null;
  /** Words about it, and the act at their end. */
  children: ReactNode[];
}

function Row({ plate, who, wish, descent, done, children }: RowProps) {
  const words = children.slice(0, -1);
  return (
    <li data-drawn={descent ? "" : undefined}>
      <Mono>{plate}</Mono>
      <span>
        <strong>{who}</strong>
        <small>
          {words}
          {wish && ` · ${wish}`}
        </small>
      </span>
      {descent && <MiniDescent descent={descent} done={done} label={`The way down to ${who} and back up`} />}
      {children.at(-1)}
    </li>
  );
}
