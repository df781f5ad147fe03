import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type DayJob, type DayPage } from "../api/client";
import { useLive } from "../live/useLive";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Loaded } from "../shared/Loaded";
import { Asked, Button, Heading, KeyHint, LoneLink, Notice, Plate, Small, Strong, Unseen } from "../shared/parts";
import { scrolls } from "../shared/scrolls";
import { ChosenJob, type Spot } from "./ChosenJob";
import { DayBoard } from "./DayBoard";
import { DayList } from "./DayList";
import { clock, fullness, listOf, nameOf, of100, previewWords, sinking, summary } from "./words";

const Sheet = styled.main`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  @media (max-width: 1100px) {
    height: auto;
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Main = styled.div`
  padding: 24px 22px 0;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  header {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 20px;
    justify-content: space-between;
    align-items: baseline;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 10px;
    margin-bottom: 6px;
  }
  h1 {
    font-size: 24px;
    font-weight: 650;
  }
  .board {
    flex: 1;
    min-height: 0;
    ${scrolls}
  }
`;
const Side = styled.aside`
  background: var(--sheet);
  border-left: 5px double var(--strong);
  padding: 20px 18px;
  min-height: 0;
  ${scrolls}
  display: flex;
  flex-direction: column;
  gap: 22px;
  dl {
    margin: 8px 0 0;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    border-bottom: 1px solid var(--rule);
    padding: 4px 0;
    align-items: baseline;
  }
  dd {
    margin: 0;
    text-align: right;
  }
  @media (max-width: 1100px) {
    border-left: 0;
    border-top: 5px double var(--strong);
  }
`;
const Foot = styled.div<{ $warns: boolean }>`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  justify-content: space-between;
  align-items: center;
  border-left: 5px solid ${(p) => (p.$warns ? "var(--mark)" : "var(--strong)")};
  background: var(--sheet);
  padding: 10px 14px;
  margin: 10px 0 18px;
`;
const Bar = styled.button`
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 104px;
  gap: 8px;
  align-items: center;
  width: 100%;
  min-height: 30px;
  border: 0;
  padding: 2px 4px;
  background: none;
  text-align: left;
  cursor: pointer;
  color: inherit;
  border-radius: 4px;
  &[aria-pressed="true"] {
    background: var(--rule);
  }
  .all {
    height: 12px;
    border: 1px solid var(--ink);
    background: var(--paper);
  }
  .taken {
    height: 100%;
    background: var(--depth-4);
  }
  span:last-child {
    text-align: right;
  }
`;

/** The day: who works on what, when each car is ready, how sure that is, and the one thing to do now. */
export function DayRoute() {
  useLive();
  const page = useQuery({ queryKey: ["day"], queryFn: api.day, staleTime: 0, refetchInterval: 60_000 });
  return (
    <Loaded query={page} back="/" backWords="Back to the Counter" opening="Playing the day through…">
      {(data) => <Day page={data} />}
    </Loaded>
  );
}

function Day({ page }: { page: DayPage }) {
  const { format, account } = useSession();
  const queries = useQueryClient();
  const [date, setDate] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [spot, setSpot] = useState<Spot | null>(null);
  const [listed, setListed] = useState(() => window.innerWidth < 620);
  const [undo, setUndo] = useState<{ id: string; spot: Spot; words: string } | null>(null);
  const writes = account.role !== "technician";
  const put = (fresh: DayPage) => {
    queries.setQueryData(["day"], fresh);
    void queries.invalidateQueries({ queryKey: ["when"] });
    setSpot(null);
  };
  const change = useMutation({
    mutationFn: (act: () => Promise<DayPage>) => act(),
    onSuccess: put,
    onError: () => void queries.invalidateQueries({ queryKey: ["day"] }),
  });
  const job = page.jobs.find((one) => one.id === chosen) ?? null;
  const day = page.days.find((one) => one.date === date) ?? page.days[0];
  const sinks = sinking(page);
  const found = useQuery({
    queryKey: ["day-move", page.version, sinks?.id],
    queryFn: api.dayMove,
    enabled: writes && sinks !== undefined,
  });
  const better = found.data?.move ?? null;

  const place = (one: DayJob): Spot => ({
    person: one.person,
    place: listOf(page, one.person).findIndex((other) => other.id === one.id),
  });
  const move = (one: DayJob, to: Spot) => {
    const before = place(one);
    change.mutate(() => api.moveTime(one.id, { version: page.version, ...to }), {
      onSuccess: () => setUndo({ id: one.id, spot: before, words: one.plate }),
    });
  };
  const takeBack = () => {
    if (!undo) return;
    change.mutate(() => api.moveTime(undo.id, { version: page.version, ...undo.spot }), {
      onSuccess: () => setUndo(null),
    });
  };
  const choose = (id: string) => {
    setChosen(id);
    setSpot(null);
  };
  const step = (by: number) => {
    if (page.jobs.length === 0) return;
    const at = page.jobs.findIndex((one) => one.id === chosen);
    const next = page.jobs[(at + by + page.jobs.length) % page.jobs.length];
    setChosen(next?.id ?? null);
    setSpot(null);
  };
  const shift = (by: number) => {
    if (!job?.booked || !writes) return;
    const at = spot ?? place(job);
    const most = listOf(page, at.person).filter((one) => one.id !== job.id).length;
    setSpot({ person: at.person, place: Math.min(Math.max(at.place + by, 0), most) });
  };
  const betterJob = better ? page.jobs.find((one) => one.id === better.job) : undefined;
  useKeys([
    { key: "n", hint: "N", label: "Next job on the board", run: () => step(1) },
    { key: "p", hint: "P", label: "The job before it", run: () => step(-1) },
    { key: "e", hint: "E", label: "Earlier in its list", run: () => shift(-1) },
    { key: "l", hint: "L", label: "Later in its list", run: () => shift(1) },
    {
      key: "m",
      hint: "M",
      label: "Make the move",
      run: () => {
        if (job && spot) move(job, spot);
        else if (better && betterJob) move(betterJob, { person: better.person, place: better.place });
      },
    },
    { key: "v", hint: "V", label: "The board, or a list of it", run: () => setListed(!listed) },
    { key: "u", hint: "U", label: "Take the last move back", run: takeBack },
  ]);
  if (!day) return <Notice>The shop is never open by its opening hours: House says when.</Notice>;

  return (
    <Sheet>
      <Main>
        <header>
          <h1>{format.weekdayOf(day.date)}, as it will go</h1>
          <Small>
            {summary(page)} · {format.wallTime(page.now)} now ·{" "}
            <Asked onPress={() => setListed(!listed)}>
              {listed ? "as a picture" : "as a list"} <KeyHint>V</KeyHint>
            </Asked>
          </Small>
        </header>
        <div className="board">
          {listed ? (
            <DayList page={page} chosen={chosen} onChoose={choose} />
          ) : (
            <DayBoard
              page={page}
              day={day}
              chosen={chosen}
              onChoose={choose}
              onDrop={
                writes
                  ? (id, to) => {
                      setChosen(id);
                      setSpot(to);
                    }
                  : null
              }
            />
          )}
        </div>
        <Foot $warns={sinks !== undefined}>
          {sinks ? (
            <>
              <div>
                <Strong>
                  Call {sinks.customer ?? `about ${sinks.plate}`}{" "}
                  {sinks.call_by && sinks.call_by > page.now
                    ? `before ${clock(sinks.call_by, format, page.now)}`
                    : "now"}
                  : {sinks.promise && clock(sinks.promise, format, page.now)} holds {of100(sinks.chance ?? 0)} times in
                  100.
                </Strong>
                <br />
                <Small>
                  {better && betterJob
                    ? `${betterJob.plate} to ${nameOf(page, better.person)}: ` +
                      previewWords(better, page, format).join("; ")
                    : sinks.ready
                      ? `“It will be ${clock(sinks.ready, format, page.now)}.”`
                      : "No end is in sight."}
                </Small>
              </div>
              {writes && (
                <span style={{ display: "flex", gap: 10 }}>
                  {better && betterJob && (
                    <Button
                      onPress={() => move(betterJob, { person: better.person, place: better.place })}
                      isPending={change.isPending}
                    >
                      Move it <KeyHint>M</KeyHint>
                    </Button>
                  )}
                  <Button
                    $main={!better}
                    onPress={() =>
                      change.mutate(() =>
                        api.promiseCalled(
                          sinks.id,
                          sinks.ready ? `told ${clock(sinks.ready, format, page.now)}` : "told",
                        ),
                      )
                    }
                    isPending={change.isPending}
                  >
                    Called
                  </Button>
                </span>
              )}
            </>
          ) : (
            <span>
              {page.jobs.some((one) => one.promise)
                ? `Every promise holds at least ${of100(page.share)} times in 100.`
                : "Nothing is promised yet."}
            </span>
          )}
        </Foot>
      </Main>
      <Side>
        {change.error && (
          <Notice role="alert">
            <p>{change.error.message}</p>
          </Notice>
        )}
        {undo && !change.isPending && (
          <p role="status">
            {undo.words} was moved.{" "}
            <Asked onPress={takeBack}>
              Take it back <KeyHint>U</KeyHint>
            </Asked>
          </p>
        )}
        {job ? (
          <ChosenJob
            page={page}
            job={job}
            spot={spot}
            onSpot={setSpot}
            onMove={(to) => move(job, to)}
            onPromise={(instant) =>
              change.mutate(() => api.moveTime(job.id, { version: page.version, promise: instant, chance: page.share }))
            }
            onGiveBack={() => change.mutate(() => api.giveTimeBack(job.id, page.version))}
            isPending={change.isPending}
          />
        ) : (
          page.jobs.length > 0 && (
            <p>
              <Small>
                Press a job to see its promise{writes && " and to move it"}. <KeyHint>N</KeyHint>
              </Small>
            </p>
          )
        )}
        <section aria-label="No time yet">
          <Heading>
            <span>No time yet</span>
            <Small>{page.unplaced.length || "none"}</Small>
          </Heading>
          {page.unplaced.map((row) => (
            <p key={row.job_id} style={{ marginTop: 8 }}>
              <Plate style={{ fontSize: 13, padding: "1px 6px" }}>{row.plate}</Plate> {row.title}
              <br />
              <Small>
                {row.customer ?? "No owner noted"} ·{" "}
                <LoneLink as={Link} to={`/quotes/${row.quote_id}?when`}>
                  find it a time
                </LoneLink>
              </Small>
            </p>
          ))}
        </section>
        <section aria-label="How full">
          <Heading>
            <span>How full</span>
            <Small>
              <LoneLink as={Link} to="/calendar">
                calendar
              </LoneLink>
            </Small>
          </Heading>
          {page.days.map((one) => {
            const { taken, whole } = fullness(page, one);
            return (
              <Bar key={one.date} type="button" aria-pressed={one.date === day.date} onClick={() => setDate(one.date)}>
                <span>{format.weekdayShort(one.date)}</span>
                <span className="all">
                  <span
                    className="taken"
                    style={{ display: "block", width: `${Math.min((taken / Math.max(whole, 0.1)) * 100, 100)}%` }}
                  />
                </span>
                <Small>
                  {format.hours(taken)} of {format.hours(whole)} h<Unseen> taken</Unseen>
                </Small>
              </Bar>
            );
          })}
        </section>
      </Side>
    </Sheet>
  );
}
