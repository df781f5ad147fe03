import styled from "styled-components";
import type { LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Button, Small } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";
import { overWords, rangeWords } from "./words";

type Lesson = NonNullable<LedgerPage["lesson"]>;

const Table = styled.table`
  font-size: 14px;
  width: 100%;
  ${ruledTable(8, 4)}
  tbody th,
  tbody td {
    vertical-align: middle;
    border-bottom: 1px solid var(--rule);
    color: var(--ink);
  }
  td:nth-child(2),
  th:nth-child(2) {
    text-align: right;
    padding-right: 24px;
  }
  td:last-child,
  th:last-child {
    width: 46%;
  }
`;
const WIDTH = 240;

/** What the lesson says of each engine: how far its jobs go beyond the estimate, and between which shares surely. */
export function LessonDialog({ lesson, onClose }: { lesson: Lesson; onClose: () => void }) {
  const { format } = useSession();
  const { lately } = lesson;
  const rows = [...lesson.rows].sort((a, b) => b.over - a.over);
  const most = Math.max(0.1, ...rows.flatMap((row) => [Math.abs(row.over_low), Math.abs(row.over_high)]));
  return (
    <Dialog title="What the lesson changes" onClose={onClose} wide>
      <p>
        Hours are moved by what each engine took here, and quoted as wide as this shop&rsquo;s days are. Odds of plugs
        go by the plugs that came out. Both figures stay on every quote.
      </p>
      <Table style={{ marginTop: 12 }}>
        <thead>
          <tr>
            <th scope="col">Engine</th>
            <th scope="col">Jobs</th>
            <th scope="col">Against the estimate</th>
            <th scope="col">where it surely lies</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.engine}>
              <th scope="row">{row.engine}</th>
              <td>{row.jobs}</td>
              <td>{overWords(row.over)}</td>
              <td>
                <Scale low={row.over_low} at={row.over} high={row.over_high} most={most} />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Small as="p" style={{ marginTop: 10 }}>
        The last {Math.round(lately.days / 30)} months, each job quoted again from what was known before it:{" "}
        {lately.jobs} jobs, {format.hours(lately.quoted_hours)} h quoted, {format.hours(lately.would_hours)} h with the
        lesson, {format.hours(lately.worked_hours)} h worked without trouble.
      </Small>
      <p style={{ marginTop: 14 }}>
        <Button onPress={onClose}>Close</Button>
      </p>
    </Dialog>
  );
}

/** Where an engine stands beside its estimate (the stroke): the dot what was learned, the bar how sure. */
function Scale({ low, at, high, most }: { low: number; at: number; high: number; most: number }) {
  const x = (share: number) => WIDTH / 2 + (share / most) * (WIDTH / 2 - 8);
  const isSure = low > 0 || high < 0;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 22`}
      role="img"
      aria-label={rangeWords(low, high)}
      style={{ display: "block", width: "100%" }}
    >
      <line x1="8" x2={WIDTH - 8} y1="11" y2="11" stroke="var(--rule)" strokeWidth="1.6" />
      <rect x={x(low)} width={x(high) - x(low)} y="7" height="8" fill="var(--strong)" />
      <line x1={x(0)} x2={x(0)} y1="2" y2="20" stroke="var(--ink)" strokeWidth="1.8" />
      <circle cx={x(at)} cy="11" r="4.6" fill={isSure ? "var(--mark)" : "var(--ink)"} />
    </svg>
  );
}
