import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Calendar, type CalendarImport as Found } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Mono, Small } from "../shared/parts";
import { TableImport } from "../shared/TableImport";
import { absencesOf, daysOf } from "./calendar";
import { Row } from "./CalendarRow";

const EVERYBODY = "everybody";

interface Props {
  calendar: Calendar;
  onTake: (change: Partial<Calendar>) => void;
  onClose: () => void;
}

/** What another program's calendar file holds, taken as days the shop is closed or as somebody's absences. */
export function CalendarImport({ calendar, onTake, onClose }: Props) {
  const { format } = useSession();
  const [whose, setWhose] = useState(EVERYBODY);
  const report = useMutation({ mutationFn: (text: string) => api.readCalendar(text) });
  const taken = (found: Found) =>
    whose === EVERYBODY
      ? daysOf(found.events).filter((date) => !calendar.closed.includes(date))
      : absencesOf(found.events, Number(whose));
  const keep = useMutation<void, Error, string>({
    mutationFn: () => {
      const found = report.data ?? { events: [], left_out: [] };
      if (whose === EVERYBODY) onTake({ closed: [...new Set([...calendar.closed, ...daysOf(found.events)])] });
      else onTake({ away: [...calendar.away, ...absencesOf(found.events, Number(whose))] });
      onClose();
      return Promise.resolve();
    },
  });
  return (
    <TableImport
      title="Read a calendar file"
      intro={
        <p>
          A file that ends in <Mono>.ics</Mono>, as calendar programs write it. What it holds is shown first, and stands
          on this page until you keep it.
        </p>
      }
      types={[".ics", "text/calendar"]}
      tooLarge="Write a shorter time out of your calendar program."
      report={report}
      ask={report.mutate}
      keep={keep}
      count={(found) => taken(found).length}
      onClose={onClose}
    >
      {(found) => (
        <>
          <Choice
            label="Take them as"
            value={whose}
            options={[
              { id: EVERYBODY, text: "days the shop is closed" },
              ...calendar.everybody.map((one) => ({ id: String(one.id), text: `${one.name} is away` })),
            ]}
            onPick={setWhose}
          />
          {found.events.map((event) => (
            <Row key={`${event.from} ${event.what}`}>
              <span className="name">
                {event.what || "nothing said"}{" "}
                {whose === EVERYBODY && !event.whole_days && <Small>no whole day: stays out</Small>}
              </span>
              <Small>
                {event.whole_days
                  ? daysOf([event])
                      .map((date) => format.day(date))
                      .join(", ")
                  : `${format.wall(event.from)} to ${format.wall(event.to)}`}
              </Small>
            </Row>
          ))}
          {found.events.length === 0 && <p>It holds nothing that is still to come.</p>}
          {found.left_out.length > 0 && (
            <p>
              <Small>Left out: {found.left_out.map((row) => `${row.count} × ${row.why}`).join("; ")}.</Small>
            </p>
          )}
        </>
      )}
    </TableImport>
  );
}
