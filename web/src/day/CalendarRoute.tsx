import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type Calendar } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { DayBox } from "../shared/fields/DayBox";
import { Field } from "../shared/fields/Field";
import { MomentBox } from "../shared/fields/MomentBox";
import { TimeBox } from "../shared/fields/TimeBox";
import { Loaded } from "../shared/Loaded";
import { Asked, BookPage, Button, Heading, LoneLink, Notice, Small, Strong } from "../shared/parts";
import { equipmentOf, equipmentText, kept, workerOf } from "./calendar";
import { CalendarImport } from "./CalendarImport";
import { CalendarLinks } from "./CalendarLinks";
import { Row } from "./CalendarRow";
import { HolidaysDialog } from "./Holidays";

const Rooms = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
  gap: 28px 44px;
  margin-top: 20px;
  align-items: start;
`;

/** Who works when, in which bays, and when the shop is closed: what every promised time rests on. */
export function CalendarRoute() {
  const page = useQuery({ queryKey: ["calendar"], queryFn: api.calendar, staleTime: 0 });
  return (
    <Loaded query={page} back="/day" backWords="Back to the day" opening="Opening the calendar…">
      {(data) => <Rows key={data.revision} page={data} />}
    </Loaded>
  );
}

type Absence = Calendar["away"][number];

function Rows({ page }: { page: Calendar }) {
  const { account, format } = useSession();
  const queries = useQueryClient();
  const [draft, setDraft] = useState(page);
  const [closed, setClosed] = useState<string | null>(null);
  const [away, setAway] = useState<Absence>({
    person: page.everybody[0]?.id ?? 0,
    from: `${format.dayNow()}T08:00`,
    to: `${format.dayNow()}T17:00`,
    why: "",
  });
  const [opened, setOpened] = useState<"holidays" | "file" | null>(null);
  const writes = account.role === "owner";
  const keep = useMutation({
    mutationFn: () => api.keepCalendar(kept(draft)),
    onSuccess: (fresh) => {
      queries.setQueryData(["calendar"], fresh);
      void queries.invalidateQueries({ queryKey: ["day"] });
    },
  });
  const moved = JSON.stringify(kept(draft)) !== JSON.stringify(kept(page));
  const name = (id: number) => page.everybody.find((one) => one.id === id)?.name ?? "somebody who left";
  const put = (change: Partial<Calendar>) => setDraft({ ...draft, ...change });

  return (
    <BookPage>
      <header>
        <h1>Calendar</h1>
        <Small>
          <LoneLink as={Link} to="/day">
            the day
          </LoneLink>{" "}
          · opening hours stand in{" "}
          <LoneLink as={Link} to="/house">
            House
          </LoneLink>
        </Small>
      </header>
      <Rooms>
        <section aria-label="People">
          <Heading>
            <span>People</span>
            <Small>whose lists the board has</Small>
          </Heading>
          {page.everybody.map((person) => {
            const worker = workerOf(draft, person.id);
            const set = (change: Partial<typeof worker>) =>
              put({
                people: [...draft.people.filter((one) => one.id !== person.id), { ...worker, ...change }],
              });
            return (
              <Row key={person.id}>
                <span className="name">
                  <Strong>{person.name}</Strong>
                  <br />
                  <Asked onPress={() => set({ works: !worker.works })} isDisabled={!writes}>
                    {worker.works ? "works on cars" : "does not work on cars"}
                  </Asked>
                </span>
                {worker.works && (
                  <>
                    <Small style={{ alignSelf: "center" }}>lunch</Small>
                    <TimeBox
                      label={`Lunch of ${person.name} from`}
                      value={worker.lunch?.[0] ?? ""}
                      onTime={(time) => set({ lunch: time ? [time, worker.lunch?.[1] ?? time] : null })}
                    />
                    <TimeBox
                      label="until"
                      value={worker.lunch?.[1] ?? ""}
                      onTime={(time) => set({ lunch: time ? [worker.lunch?.[0] ?? time, time] : null })}
                    />
                  </>
                )}
              </Row>
            );
          })}
        </section>
        <section aria-label="Bays">
          <Heading>
            <span>Bays</span>
            <Small>what stands in one, not what is carried about</Small>
          </Heading>
          {draft.bays.map((bay, i) => {
            const set = (change: Partial<typeof bay>) =>
              put({ bays: draft.bays.map((one, at) => (at === i ? { ...one, ...change } : one)) });
            return (
              <Row key={i}>
                <Field label={`Name of bay ${i + 1}`} value={bay.id} onChange={(id) => set({ id })} maxLength={40} />
                <Equipment value={bay.equipment} onChange={(equipment) => set({ equipment })} />
                {writes && draft.bays.length > 1 && (
                  <Asked onPress={() => put({ bays: draft.bays.filter((_one, at) => at !== i) })}>take out</Asked>
                )}
              </Row>
            );
          })}
          {writes && (
            <p style={{ marginTop: 10 }}>
              <Button
                onPress={() => put({ bays: [...draft.bays, { id: String(draft.bays.length + 1), equipment: [] }] })}
              >
                One more bay
              </Button>
            </p>
          )}
        </section>
        <section aria-label="Away">
          <Heading>
            <span>Away</span>
            <Small>{draft.away.length || "nobody"}</Small>
          </Heading>
          {draft.away.map((one, i) => (
            <Row key={`${one.person} ${one.from}`}>
              <span className="name">
                <Strong>{name(one.person)}</Strong> {one.why && <Small>{one.why}</Small>}
                <br />
                <Small>
                  {format.wall(one.from)} to {format.wall(one.to)}
                </Small>
              </span>
              {writes && (
                <Asked onPress={() => put({ away: draft.away.filter((_row, at) => at !== i) })}>take out</Asked>
              )}
            </Row>
          ))}
          {writes && (
            <Row>
              <Choice
                label="Who"
                value={String(away.person)}
                options={page.everybody.map((one) => ({ id: String(one.id), text: one.name }))}
                onPick={(id) => setAway({ ...away, person: Number(id) })}
              />
              <MomentBox label="From" value={away.from} onMoment={(from) => from && setAway({ ...away, from })} />
              <MomentBox label="Until" value={away.to} onMoment={(to) => to && setAway({ ...away, to })} />
              <Field label="Why" value={away.why} onChange={(why) => setAway({ ...away, why })} maxLength={60} />
              <Button onPress={() => put({ away: [...draft.away, away] })}>Add</Button>
            </Row>
          )}
        </section>
        <section aria-label="Closed">
          <Heading>
            <span>Closed</span>
            <Small>for everybody</Small>
          </Heading>
          {[...draft.closed].sort().map((date) => (
            <Row key={date}>
              <span className="name">
                {format.weekdayOf(date)}, {format.day(date)}
              </span>
              {writes && (
                <Asked onPress={() => put({ closed: draft.closed.filter((one) => one !== date) })}>take out</Asked>
              )}
            </Row>
          ))}
          {writes && (
            <Row>
              <DayBox label="A day the shop is closed" value={closed} onDay={setClosed} />
              <Button
                isDisabled={closed === null || draft.closed.includes(closed)}
                onPress={() => {
                  if (closed) put({ closed: [...draft.closed, closed] });
                  setClosed(null);
                }}
              >
                Add
              </Button>
            </Row>
          )}
          {writes && (
            <p style={{ marginTop: 10, display: "flex", flexWrap: "wrap", gap: 12 }}>
              <Button onPress={() => setOpened("holidays")}>Holidays…</Button>
              <Button onPress={() => setOpened("file")}>Read a calendar file…</Button>
            </p>
          )}
        </section>
        {writes && <CalendarLinks people={page.everybody} />}
      </Rooms>
      {opened === "holidays" && (
        <HolidaysDialog
          closed={draft.closed}
          onClosed={(dates) => put({ closed: dates })}
          onClose={() => setOpened(null)}
        />
      )}
      {opened === "file" && <CalendarImport calendar={draft} onTake={put} onClose={() => setOpened(null)} />}
      {keep.error && (
        <Notice role="alert" style={{ marginTop: 16 }}>
          <p>{keep.error.message}</p>
        </Notice>
      )}
      {writes ? (
        <p style={{ marginTop: 22, display: "flex", gap: 12, alignItems: "center" }}>
          <Button $main onPress={() => keep.mutate()} isPending={keep.isPending} isDisabled={!moved}>
            Keep
          </Button>
          <Small>{moved ? "not kept yet" : "kept"}</Small>
        </p>
      ) : (
        <p style={{ marginTop: 22 }}>
          <Small>The owner keeps the calendar.</Small>
        </p>
      )}
    </BookPage>
  );
}

/** What stands in a bay, by commas: as it is typed until it is left. */
function Equipment({ value, onChange }: { value: string[]; onChange: (value: string[]) => void }) {
  const [text, setText] = useState(equipmentText(value));
  return (
    <Field
      label="Equipment in it"
      value={text}
      onChange={(next) => {
        setText(next);
        onChange(equipmentOf(next));
      }}
      placeholder="two-post lift"
    />
  );
}
