import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { DayJob, DayPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { depthInk } from "../shared/depth";
import type { Spot } from "./ChosenJob";
import { extent, isCooling, laidOut, lanes } from "./course";
import { rowAt, spotAt } from "./drag";
import { useDrag } from "./useDrag";
import { clock, listOf, of100 } from "./words";

const LEFT = 84;
const RIGHT = 40;
const TOP = 30;
const LANE = 108;
const DEEPEST = 54;
const ROOM = 38;

const Chart = styled.svg`
  display: block;
  width: 100%;
  user-select: none;
  text {
    font-family: inherit;
    fill: var(--ink);
  }
  .second {
    fill: var(--second);
  }
  [role="button"] {
    cursor: pointer;
    outline: none;
  }
  [role="button"]:focus-visible .frame,
  .frame[data-chosen] {
    stroke: var(--ink);
  }
  [data-carries] {
    touch-action: none;
  }
  [data-carried] {
    cursor: grabbing;
    opacity: 0.7;
  }
  .frame {
    fill: transparent;
    stroke: none;
    stroke-dasharray: 3 3;
  }
`;

interface Props {
  page: DayPage;
  /** The day that is drawn, one of the page's. */
  day: DayPage["days"][number];
  chosen: string | null;
  onChoose: (id: string) => void;
  /** A job was let go somewhere else; null where nobody may move one. */
  onDrop: ((id: string, spot: Spot) => void) | null;
}

/**
 * Everybody's day: each job as its own way down and back up, laid where it will most likely run. Above it the slope of
 * its end, from the middle to nineteen in twenty, and what was promised.
 */
export function DayBoard({ page, day, chosen, onChoose, onDrop }: Props) {
  const { format } = useSession();
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setWidth(Math.max(entry.contentRect.width, 420)));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const across = (width - LEFT - RIGHT) / (day.to - day.from);
  const x = (minutes: number) => LEFT + (Math.min(Math.max(minutes, day.from), day.to) - day.from) * across;
  const ofDay = (job: DayJob) => {
    const [from, to] = extent(job);
    return from < day.to && Math.max(to, job.p95 ?? to) > day.from;
  };
  const rows = page.people.map((person) => {
    const jobs = listOf(page, person.id).filter(ofDay);
    const lane = lanes(jobs);
    return { person, jobs, lane, height: ROOM + LANE * Math.max(1, ...[...lane.values()].map((one) => one + 1)) };
  });
  const tops = rows.map((_row, i) => TOP + rows.slice(0, i).reduce((sum, row) => sum + row.height, 0));
  const height = TOP + rows.reduce((sum, row) => sum + row.height, 0) + 8;
  const open = day.from <= 0 && day.to > 0;
  const { carried, handles } = useDrag((job, left, top) => {
    const at = box.current?.getBoundingClientRect();
    const row = at && rows[rowAt(tops, top - at.top)];
    if (!at || !row) return;
    const minutes = day.from + (left - at.left - LEFT) / across;
    onDrop?.(job.id, spotAt(page, job, row.person.id, minutes));
  });

  return (
    <div ref={box}>
      <Chart width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="group" aria-label="The board">
        <defs>
          <pattern id="slope" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V5" stroke="var(--second)" strokeWidth="1" />
          </pattern>
        </defs>
        <Hours page={page} day={day} x={x} height={height} />
        {rows.map(({ person, jobs, lane }, i) => (
          <g key={person.id} transform={`translate(0 ${tops[i]})`}>
            <text x={0} y={ROOM - 4} fontSize={17} fontWeight={650}>
              {person.name.split(" ")[0]}
            </text>
            {person.at_work
              .filter((span) => span.from < day.to && span.to > day.from)
              .map((span) => (
                <path
                  key={span.from}
                  d={`M${x(span.from)} ${ROOM}H${x(span.to)}`}
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
              ))}
            {jobs.map((job) => (
              <JobShape
                key={job.id}
                job={job}
                page={page}
                top={ROOM + (lane.get(job.id) ?? 0) * LANE}
                x={x}
                day={day}
                isChosen={job.id === chosen}
                onChoose={() => onChoose(job.id)}
                by={carried?.id === job.id ? carried : null}
                handles={onDrop && job.booked && !job.begun ? handles(job) : null}
              />
            ))}
            {jobs.length === 0 && (
              <text x={x(Math.max(day.from, 0)) + 8} y={ROOM + 22} fontSize={13} className="second">
                free for other work
              </text>
            )}
          </g>
        ))}
        {open && <path d={`M${x(0)} ${TOP - 8}V${height}`} stroke="var(--mark)" strokeWidth={2.4} aria-hidden />}
        {open && (
          <text x={x(0) + 5} y={height - 4} fontSize={13} fontWeight={650} style={{ fill: "var(--mark)" }}>
            {format.wallTime(page.now)} now
          </text>
        )}
      </Chart>
    </div>
  );
}

interface Scale {
  x: (minutes: number) => number;
}

/** Full hours as fine lines, the day's end as a strong one. */
function Hours({ page, day, x, height }: Scale & { page: DayPage; day: Props["day"]; height: number }) {
  const { format } = useSession();
  const midnight = minutesToMidnight(page.now, day.date);
  const first = Math.ceil((day.from - midnight) / 60);
  const last = Math.floor((day.to - midnight) / 60);
  const step = (x(60) - x(0) || 60) < 44 ? 2 : 1;
  const hours = Array.from({ length: last - first + 1 }, (_, i) => first + i).filter(
    (hour) => (hour - first) % step === 0,
  );
  return (
    <g aria-hidden>
      {hours.map((hour) => (
        <g key={hour}>
          <path d={`M${x(midnight + hour * 60)} ${TOP - 6}V${height}`} stroke="var(--rule)" />
          <text x={x(midnight + hour * 60)} y={TOP - 12} fontSize={13} textAnchor="middle" className="second">
            {format.wallTime(`${day.date}T${String(hour % 24).padStart(2, "0")}:00`).replace(/:00|\s?[AP]M/gi, "")}
          </text>
        </g>
      ))}
      <path d={`M${x(day.to)} ${TOP - 20}V${height}`} stroke="var(--ink)" strokeWidth={1.6} />
    </g>
  );
}

const minutesToMidnight = (now: string, date: string) =>
  (Date.parse(`${date}T00:00Z`) - Date.parse(`${now}Z`)) / 60_000;

interface ShapeProps extends Scale {
  job: DayJob;
  page: DayPage;
  top: number;
  day: Props["day"];
  isChosen: boolean;
  onChoose: () => void;
  /** How far it is carried away from where it lies. */
  by: { dx: number; dy: number } | null;
  /** What it listens to where it may be carried. */
  handles: object | null;
}

/** One job on the day: its way, the slope of its end, its promise, and what it is. */
function JobShape({ job, page, top, x, day, isChosen, onChoose, by, handles }: ShapeProps) {
  const { format } = useSession();
  const [from, to] = extent(job);
  const laid = laidOut(job).filter((one) => one.to > day.from && one.from < day.to);
  const row = DEEPEST / Math.max(job.descent.levels, 3);
  const deepest = Math.max(...laid.map((one) => one.depth), 1) * row;
  const first = job.course[0];
  const label = labelOf(job, page, format);
  const left = x(from);
  const below = top + Math.min(deepest, DEEPEST) + 15;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={isChosen}
      data-carries={handles ? true : undefined}
      data-carried={by ? true : undefined}
      transform={by ? `translate(${by.dx} ${by.dy})` : undefined}
      onClick={onChoose}
      {...handles}
      onKeyDown={(event) => {
        if (event.key === "Enter" || event.key === " ") {
          event.preventDefault();
          onChoose();
        }
      }}
    >
      <title>{label}</title>
      <rect
        className="frame"
        data-chosen={isChosen || undefined}
        x={left - 4}
        y={top - 24}
        width={Math.max(x(Math.max(to, job.p95 ?? to)) - left, 60) + 8}
        height={DEEPEST + 44}
        rx={4}
      />
      {isCooling(job) && first && (
        <rect
          x={x(first.from)}
          y={top}
          width={Math.max(x(first.to) - x(first.from), 0)}
          height={12}
          fill="none"
          stroke="var(--second)"
          strokeDasharray="1.5 2.5"
        />
      )}
      {laid.map((one) => (
        <rect
          key={`${one.from} ${one.depth} ${one.kind}`}
          x={x(one.from)}
          y={one.depth === 0 ? top - 2 : top}
          width={Math.max(x(one.to) - x(one.from), 0.4)}
          height={one.depth === 0 ? 4 : one.depth * row}
          fill={inkOf(one, job)}
          stroke="var(--ink)"
          strokeWidth={0.7}
          strokeDasharray={one.kind === "wait" ? "1.5 2.5" : undefined}
          opacity={one.done || !job.begun ? 1 : 0.9}
        />
      ))}
      <Slope job={job} x={x} top={top} day={day} />
      <Promise job={job} page={page} x={x} top={top} day={day} />
      <text x={Math.min(left, x(day.to) - 150)} y={below} fontSize={13} aria-hidden>
        <tspan fontFamily='"Atkinson Hyperlegible Mono Variable", monospace' fontWeight={650}>
          {job.plate}
        </tspan>
        <tspan dx={8} className="second">
          {shorter(job.title)}
          {job.hold_until ? ", held" : ""}
        </tspan>
      </text>
    </g>
  );
}

const shorter = (text: string) => (text.length > 26 ? `${text.slice(0, 25)}…` : text);

/** Waiting stays open water; what is still to come of a job in work too. */
function inkOf(one: ReturnType<typeof laidOut>[number], job: DayJob) {
  if (one.kind === "wait") return "none";
  if (job.begun && !one.done) return "var(--paper)";
  if (one.depth === 0) return "var(--ink)";
  return one.kind === "work" ? "var(--ink)" : depthInk(one.depth, job.descent.levels - 1);
}

/** The end is no line: from the middle to where nineteen in twenty such days have ended, a stroke at four in five. */
function Slope({ job, x, top, day }: Scale & { job: DayJob; top: number; day: Props["day"] }) {
  const { p50, p80, p95 } = job;
  if (p50 === null || p50 > day.to || p50 < day.from) return null;
  const end = Math.min(p95 ?? day.to, day.to);
  return (
    <g aria-hidden>
      <path
        d={`M${x(p50)} ${top - 15}L${x(end)} ${top}H${x(p50)}Z`}
        fill="url(#slope)"
        stroke="var(--second)"
        strokeWidth={0.8}
      />
      {p80 !== null && p80 <= day.to && (
        <path d={`M${x(p80)} ${top - 14}V${top + 5}`} stroke="var(--ink)" strokeWidth={1.6} />
      )}
    </g>
  );
}

function Promise({ job, page, x, top, day }: Scale & { job: DayJob; page: DayPage; top: number; day: Props["day"] }) {
  const { format } = useSession();
  if (job.promise === null || job.chance === null) return null;
  const at = (Date.parse(`${job.promise}Z`) - Date.parse(`${page.now}Z`)) / 60_000;
  if (at < day.from || at > day.to) return null;
  const sinks = job.call_by !== null;
  const ink = sinks ? "var(--mark)" : "var(--ink)";
  const words = `${sinks ? "promised " : ""}${format.wallTime(job.promise)}: ${of100(job.chance)} of 100`;
  const right = x(at) > x(day.to) - 150;
  return (
    <g aria-hidden>
      <path d={`M${x(at)} ${top - 22}V${top + 2}`} stroke={ink} strokeWidth={2} />
      <text
        x={x(at) + (right ? -5 : 5)}
        y={top - 14}
        fontSize={13}
        fontWeight={650}
        textAnchor={right ? "end" : "start"}
        style={{ fill: ink }}
      >
        {words}
      </text>
    </g>
  );
}

/** What a screen reader is told of a job on the board. */
function labelOf(job: DayJob, page: DayPage, format: ReturnType<typeof useSession>["format"]): string {
  const parts = [
    `${job.plate}, ${job.title}`,
    job.begun ? "in work" : `brought ${clock(job.arrives, format, page.now)}`,
  ];
  if (job.ready) parts.push(`ready ${clock(job.ready, format, page.now)}`);
  if (job.promise && job.chance !== null)
    parts.push(`promised ${clock(job.promise, format, page.now)}, holds ${of100(job.chance)} times in 100`);
  return parts.join(", ");
}
