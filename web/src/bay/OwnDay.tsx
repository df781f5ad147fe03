import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type DayJob } from "../api/client";
import { clock, ownDay } from "../day/words";
import { useSession } from "../session/SessionGate";
import { Heading, Plate, Small, Strong } from "../shared/parts";

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 178px 132px minmax(0, 1fr) auto;
    gap: 14px;
    align-items: center;
    min-height: 48px;
    border-bottom: 1px solid var(--rule);
    padding: 4px 0;
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
  }
`;

/** One's own row of the day's board: in which order, from when to when, and what was promised. */
export function OwnDay() {
  const { account, format } = useSession();
  const page = useQuery({ queryKey: ["day"], queryFn: api.day, staleTime: 0, refetchInterval: 60_000 });
  const rows = page.data ? ownDay(page.data, account.id) : [];
  if (!page.data || rows.length === 0) return null;
  const promised = (job: DayJob) => (job.promise ? `promised ${format.wall(job.promise)}` : "nothing promised");
  return (
    <section aria-label="Your day">
      <Heading style={{ marginTop: 18 }}>
        <span>Your day</span>
        <Small>
          <Link to="/day">everybody's</Link>
        </Small>
      </Heading>
      <List>
        {rows.map(({ job, from, to }) => (
          <li key={job.id}>
            <Strong>
              {job.begun ? "in hand" : format.wallTime(from)} to {clock(to, format, page.data.now)}
            </Strong>
            {job.job_id ? (
              <Link to={`/bay/${job.job_id}`}>
                <Plate style={{ fontSize: 15 }}>{job.plate}</Plate>
              </Link>
            ) : (
              <Plate style={{ fontSize: 15 }}>{job.plate}</Plate>
            )}
            <span>
              {job.title} {job.hold_until && <Small>held, not agreed yet</Small>}
            </span>
            <Small>{promised(job)}</Small>
          </li>
        ))}
      </List>
    </section>
  );
}
