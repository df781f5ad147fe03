import type { ReactNode } from "react";
import styled from "styled-components";
import type { Ahead, Beside, Content } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import type { Formatter } from "../../shared/format";
import { olderFigures } from "../../shared/olderFigures";
import { Asked, Button, Heading, KeyHint, Small } from "../../shared/parts";
import { DescentDrawing } from "../drawing/DescentDrawing";
import { AheadPart } from "./AheadPart";
import { byHours } from "./works";
import { scrolls } from "../../shared/scrolls";

const Page = styled.section`
  flex: 1;
  min-height: 0;
  ${scrolls}
  padding: 10px 18px 16px;
`;
const Table = styled.table`
  table-layout: fixed;
  margin-top: 4px;
  min-width: 560px;
  col.label {
    width: 186px;
  }
  @media (max-width: 900px) {
    col.label {
      width: 132px;
    }
  }
  th {
    font-weight: 400;
    text-align: left;
    vertical-align: top;
    padding: 6px 12px 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  thead th {
    border-bottom: 1.4px solid var(--ink);
    vertical-align: bottom;
    line-height: 1.25;
  }
  thead button {
    font-weight: 650;
  }
  td {
    text-align: right;
    padding: 6px 12px;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
  }
  th + td,
  td + td,
  thead th + th {
    border-left: 1px solid var(--rule);
    padding-left: 12px;
  }
  [data-active] {
    background: var(--sheet);
  }
  td.drawing {
    padding: 8px 10px 2px;
  }
  tr.total > * {
    border-top: 1.4px solid var(--ink);
  }
  tr.total .sum {
    font-size: 24px;
    line-height: 1.15;
    font-weight: 700;
    border-bottom: 4px double var(--ink);
    white-space: nowrap;
  }
  tr.total th {
    font-weight: 650;
    font-size: 17px;
  }
  tr.both > * {
    font-weight: 650;
  }
  [data-older] & td {
    ${olderFigures}
  }
`;

interface Props {
  /** What the months after bring, where that can be said. */
  ahead?: Ahead | null;
  onAssume?: (assumed: NonNullable<Content["ahead"]>) => void;
  rows?: Beside[];
  active: number;
  stale: boolean;
  onGo: (index: number) => void;
  onClose: () => void;
}

/** Two or three scopes beside each other: what each comes to now, and what it leaves for another day. */
export function SideBySide({ ahead, onAssume, rows, active, stale, onGo, onClose }: Props) {
  const { format } = useSession();
  return (
    <Page aria-label="Scopes side by side">
      <Heading>
        <span>Side by side</span>
        <Small>
          <Asked onPress={onClose}>
            back to the drawing <KeyHint>=</KeyHint>
          </Asked>
        </Small>
      </Heading>
      {rows ? (
        <>
          <Columns rows={rows} ahead={ahead} active={active} stale={stale} format={format} onGo={onGo} />
          {ahead && (
            <AheadPart
              ahead={ahead}
              names={rows.map((row) => row.name || row.title || `scope ${row.index + 1}`)}
              onAssume={onAssume}
            />
          )}
        </>
      ) : (
        <p role="status">Pricing every scope…</p>
      )}
    </Page>
  );
}

function Columns({
  rows,
  ahead,
  active,
  stale,
  format,
  onGo,
}: {
  rows: Beside[];
  ahead?: Ahead | null;
  active: number;
  stale: boolean;
  format: Formatter;
  onGo: (index: number) => void;
}) {
  const fit = {
    length_minutes: Math.max(...rows.map((row) => row.descent?.length_minutes ?? 0)),
    levels: Math.max(...rows.map((row) => row.descent?.levels ?? 0)),
  };
  const money = (cents: number | undefined) => (cents === undefined ? "—" : format.money(cents));
  const line = (label: ReactNode, figure: (row: Beside) => ReactNode, className?: string) => (
    <tr className={className}>
      <th scope="row">{label}</th>
      {rows.map((row) => (
        <td key={row.index} data-active={row.index === active ? "" : undefined}>
          {row.quoted_hours === undefined ? "—" : figure(row)}
        </td>
      ))}
    </tr>
  );
  return (
    <Table aria-busy={stale}>
      <colgroup>
        <col className="label" />
        {rows.map((row) => (
          <col key={row.index} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <th scope="col">
            <Small>minutes to one scale</Small>
          </th>
          {rows.map((row) => (
            <th
              key={row.index}
              scope="col"
              data-active={row.index === active ? "" : undefined}
              aria-current={row.index === active ? "true" : undefined}
            >
              <Small>
                Scope {row.index + 1}
                {row.index === active && ", on the page"}
              </Small>
              <br />
              <strong>{row.name || row.title || "Nothing chosen yet"}</strong>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Down, work, and back up</th>
          {rows.map((row) => (
            <td key={row.index} className="drawing" data-active={row.index === active ? "" : undefined}>
              {row.descent && (
                <DescentDrawing descent={row.descent} fit={fit} active={null} onActive={() => undefined} height={230} />
              )}
            </td>
          ))}
        </tr>
        {line("Hours quoted", (row) => (
          <>
            {format.hours(row.quoted_hours ?? 0)} h <Small>80 of 100 within {format.hours(row.p80_hours ?? 0)}</Small>
          </>
        ))}
        {line("Labor", (row) => money(row.labor_cents))}
        {line("Parts", (row) => money(row.parts_cents))}
        {line("With it, and tax", (row) => money(row.with_it_cents))}
        {line(
          "Total",
          (row) => (
            <Total row={row} format={format} />
          ),
          "total",
        )}
        {line("Against this one", (row) =>
          row.against_cents === undefined ? (
            <Small>this one</Small>
          ) : (
            `${byHours(row.against_hours ?? 0, format)}, ${format.signed(row.against_cents)}`
          ),
        )}
        {line("Not above, without a call", (row) => money(row.not_above_cents))}
        {line("No trouble on the way", (row) =>
          row.no_trouble === undefined ? "—" : `${Math.round(row.no_trouble * 100)} of 100 jobs`,
        )}
        {line("Ready", (row) => (row.ready ? format.wall(row.ready) : "—"))}
        {line("Left for another day", (row) =>
          row.left_cents === undefined ? (
            <Small>nothing</Small>
          ) : (
            `${format.hours(row.left_hours ?? 0)} h, ${format.signed(row.left_cents)}`
          ),
        )}
        {line(
          "Both days together",
          (row) => (row.both_cents === undefined ? money(row.total_cents) : format.money(row.both_cents)),
          "both",
        )}
        {ahead && (
          <>
            {line(`No comeback in ${ahead.months} months`, (row) => (
              <After row={of(ahead, row)} show={(one) => `${Math.round(one.no_comeback * 100)} of 100`} />
            ))}
            {line("Returns expected, and the changes due", (row) => (
              <After
                row={of(ahead, row)}
                show={(one) =>
                  `${format.figure(one.returns, 2)}${one.scheduled ? `, ${format.money(one.scheduled.cents)}` : ""}`
                }
              />
            ))}
            {line(
              "All told, plug life counted",
              (row) => (
                <After row={of(ahead, row)} show={(one) => format.money(one.net_cents)} />
              ),
              "both",
            )}
          </>
        )}
        <tr>
          <td aria-hidden="true" />
          {rows.map((row) => (
            <td key={row.index} data-active={row.index === active ? "" : undefined}>
              <Button onPress={() => onGo(row.index)} isDisabled={row.index === active}>
                Work on scope {row.index + 1}
              </Button>
            </td>
          ))}
        </tr>
      </tbody>
    </Table>
  );
}

function Total({ row, format }: { row: Beside; format: Formatter }) {
  if (row.total_cents === undefined) return "—";
  return (
    <>
      <span className="sum">{format.moneyWithSign(row.total_cents)}</span>
      {row.incomplete && <Small> so far: a part has no price</Small>}
    </>
  );
}

const of = (ahead: Ahead, row: Beside) => ahead.rows.find((one) => one.index === row.index);

function After({ row, show }: { row?: Ahead["rows"][number]; show: (row: Ahead["rows"][number]) => string }) {
  if (!row) return "—";
  return (
    <>
      {show(row)}
      {row.incomplete && <Small> so far</Small>}
    </>
  );
}
