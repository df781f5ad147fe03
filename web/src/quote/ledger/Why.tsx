import styled from "styled-components";
import type { Estimate, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { type Formatter, list } from "../../shared/format";
import { Small } from "../../shared/parts";
import { originWords } from "../../workshop/words";
import { learnedWords, reasonWords } from "../words";

type Line = NonNullable<Estimate["price"]>["lines"][number];
type Task = NonNullable<Sheet["tasks"]>[number];

const KINDS: Record<string, string> = {
  remove: "off",
  refit: "on",
  work: "work",
  soak: "soak",
  closing: "closing",
  house: "house",
};

const Table = styled.table`
  font-size: 14px;
  margin: 10px 0;
  th {
    text-align: right;
    font-weight: 400;
    color: var(--second);
    font-size: 13px;
    border-bottom: 1px solid var(--strong);
    padding: 3px 6px;
  }
  th:first-child,
  td:first-child {
    text-align: left;
  }
  td {
    text-align: right;
    border-bottom: 1px solid var(--rule);
    padding: 3px 6px;
    white-space: nowrap;
  }
  td:first-child {
    white-space: normal;
  }
  tfoot td {
    font-weight: 650;
    border-top: 1.4px solid var(--ink);
    border-bottom: 0;
  }
`;

/** "Why?" of one figure, answered with its lines. */
export function Why({ asked, sheet, onClose }: { asked: Line | "hours"; sheet: Sheet; onClose: () => void }) {
  if (asked === "hours" || asked.kind === "labor") return <WhyHours sheet={sheet} onClose={onClose} />;
  return <WhyLine line={asked} sheet={sheet} onClose={onClose} />;
}

function WhyHours({ sheet, onClose }: { sheet: Sheet; onClose: () => void }) {
  const { format } = useSession();
  const estimate = sheet.estimate;
  if (!estimate) return null;
  const { hours } = estimate;
  const added = hours.learned?.mean_minutes ?? hours.mean_minutes;
  return (
    <Dialog title={`Why ${format.hours(hours.quoted)} hours?`} onClose={onClose} wide>
      <p>
        The tasks add up to {format.minutes(added)} minutes on average
        {sheet.learned &&
          `; with what was learned they are expected to take ${format.minutes(hours.mean_minutes)}`}.{" "}
        {shares(format, hours)}{" "}
        {hours.computed === undefined
          ? "The quote is the house share of that range, rounded up."
          : `The house share of that range, rounded up, is ${format.hours(hours.computed)} h; ` +
            `${format.hours(hours.quoted)} h is set by hand: ${hours.reason}.`}
      </p>
      {sheet.learned && <p>{learnedWords(sheet.learned, format)}</p>}
      <TaskTable tasks={sheet.tasks ?? []} sheet={sheet} total={added} />
      <p>
        <Small>
          Minutes are the engine profile's, typed there where nothing else is said; house tasks, soaks and multipliers
          are house settings. {sheet.learned ? "What was learned moves their sum." : "Nothing learned is in it."}
        </Small>
      </p>
    </Dialog>
  );
}

/** Why a layer comes off: who needs it, what it takes, what multiplied the minutes, and where each figure is from. */
export function WhyLayer({ step, sheet, onClose }: { step: string; sheet: Sheet; onClose: () => void }) {
  const layer = sheet.layers.find((row) => row.step === step);
  const tasks =
    sheet.tasks?.filter((task) => task.ref === step && ["remove", "refit", "closing"].includes(task.kind)) ?? [];
  if (!layer) return null;
  return (
    <Dialog title={`Why ${layer.label}?`} onClose={onClose} wide>
      <p>
        {layer.needed_by.length > 0
          ? `Needed for ${list(layer.needed_by.map((name) => name.toLowerCase()))}.`
          : "Nothing in this job needs it."}{" "}
        {layer.needs.length > 0 && `Takes ${list(layer.needs)}.`}{" "}
        {layer.over.length > 0 &&
          `It lies over ${layer.over.length === 1 ? "cylinder" : "cylinders"} ${list(layer.over)}.`}
      </p>
      <TaskTable tasks={tasks} sheet={sheet} />
    </Dialog>
  );
}

function TaskTable({ tasks, sheet, total }: { tasks: Task[]; sheet: Sheet; total?: number }) {
  const { format } = useSession();
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Task</th>
          <th scope="col">low</th>
          <th scope="col">likely</th>
          <th scope="col">high</th>
          <th scope="col">mean, min</th>
        </tr>
      </thead>
      <tbody>
        {tasks.map((task) => (
          <TaskRow key={`${task.kind}-${task.ref}-${task.label}`} task={task} sheet={sheet} />
        ))}
      </tbody>
      {total !== undefined && (
        <tfoot>
          <tr>
            <td colSpan={4}>All tasks</td>
            <td>{format.figure(total, 1)}</td>
          </tr>
        </tfoot>
      )}
    </Table>
  );
}

function TaskRow({ task, sheet }: { task: Task; sheet: Sheet }) {
  const { format } = useSession();
  const layer = sheet.layers.find((row) => row.step === task.ref && (task.kind === "remove" || task.kind === "refit"));
  return (
    <tr>
      <td>
        {task.label} <Small>{KINDS[task.kind]}</Small>
        {task.origin && task.origin.from !== "typed" && <Small> {originWords(task.origin)}</Small>}
        {task.people > 1 && <Small> × {task.people} people</Small>}
        {task.reasons.map((reason) => (
          <Small key={reason.kind}> {reasonWords(reason, format)}</Small>
        ))}
        {task.chain.length > 0 && <Small> through {list(task.chain.map((name) => name.toLowerCase()))}</Small>}
        {layer && task.kind === "remove" && layer.needed_by.length > 0 && <Small> for {list(layer.needed_by)}</Small>}
      </td>
      <td>{format.figure(task.low, 1)}</td>
      <td>{format.figure(task.likely, 1)}</td>
      <td>{format.figure(task.high, 1)}</td>
      <td>{format.figure(task.mean, 1)}</td>
    </tr>
  );
}

function WhyLine({ line, sheet, onClose }: { line: Line; sheet: Sheet; onClose: () => void }) {
  const { format } = useSession();
  const names = (line.because ?? []).map(
    (id) =>
      sheet.layers.find((layer) => layer.step === id)?.label ??
      sheet.tasks?.find((task) => task.ref === id)?.label ??
      id,
  );
  return (
    <Dialog title={`${line.label}: ${format.moneyWithSign(line.cents)}`} onClose={onClose}>
      {line.basis && <p>{line.basis}</p>}
      <p>
        {line.quantity} × {format.money(line.unit_cents)} = {format.money(line.cents)}
      </p>
      {names.length > 0 && <p>Needed for: {list(names)}.</p>}
    </Dialog>
  );
}

type Hours = NonNullable<Sheet["estimate"]>["hours"];

const shares = (format: Formatter, { p50, p80, p95 }: Hours) =>
  `Half of such jobs are done within ${format.hours(p50)} h, 80 of 100 within ${format.hours(p80)} h, ` +
  `95 of 100 within ${format.hours(p95)} h.`;
