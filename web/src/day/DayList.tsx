import styled from "styled-components";
import type { DayPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Plate, Small, Strong } from "../shared/parts";
import { clock, nameOf, of100 } from "./words";

const Table = styled.table`
  width: 100%;
  margin-top: 8px;
  th {
    font-size: 13px;
    font-weight: 400;
    color: var(--second);
    text-align: left;
    padding: 4px 8px 4px 0;
  }
  td {
    border-top: 1px solid var(--rule);
    padding: 8px 8px 8px 0;
    vertical-align: top;
  }
  button {
    border: 0;
    padding: 0;
    background: none;
    cursor: pointer;
    text-align: left;
    color: inherit;
    min-height: 28px;
  }
  tr[aria-selected="true"] td {
    background: var(--rule);
  }
`;

interface Props {
  page: DayPage;
  chosen: string | null;
  onChoose: (id: string) => void;
}

/** The board as a list, soonest ready first: for small screens, and for whoever would rather read than look. */
export function DayList({ page, chosen, onChoose }: Props) {
  const { format } = useSession();
  const say = (instant: string) => clock(instant, format, page.now);
  const jobs = [...page.jobs].sort((one, other) => (one.ready ?? "~").localeCompare(other.ready ?? "~"));
  if (jobs.length === 0) return <p style={{ marginTop: 14 }}>Nothing is booked and nothing is in work.</p>;
  return (
    <Table>
      <thead>
        <tr>
          <th>Car</th>
          <th>Who</th>
          <th>Ready</th>
          <th>Promised</th>
        </tr>
      </thead>
      <tbody>
        {jobs.map((job) => (
          <tr key={job.id} aria-selected={job.id === chosen}>
            <td>
              <button type="button" onClick={() => onChoose(job.id)} aria-pressed={job.id === chosen}>
                <Plate style={{ fontSize: 13, padding: "1px 6px" }}>{job.plate}</Plate>
                <br />
                <Small>{job.title}</Small>
              </button>
            </td>
            <td>
              {nameOf(page, job.person).split(" ")[0]}
              <br />
              <Small>{job.begun ? "in work" : `here ${say(job.arrives)}`}</Small>
            </td>
            <td>
              <Strong>{job.ready ? say(job.ready) : "–"}</Strong>
            </td>
            <td style={job.call_by ? { color: "var(--mark)" } : undefined}>
              {job.promise && job.chance !== null ? (
                <>
                  {say(job.promise)}
                  <br />
                  {of100(job.chance)} of 100
                </>
              ) : (
                <Small>nothing</Small>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
