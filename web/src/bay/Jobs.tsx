import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type BayJob } from "../api/client";
import { useLive } from "../live/useLive";
import { useSession } from "../session/SessionGate";
import { Opened } from "../shared/Opened";
import { Heading, Plate, Small } from "../shared/parts";
import { OwnDay } from "./OwnDay";

const Screen = styled.main`
  padding: 18px 26px 40px;
  max-width: 900px;
  h1 {
    font-size: 22px;
    font-weight: 650;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  ul li a {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr) auto;
    gap: 16px;
    align-items: center;
    min-height: 64px;
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
    text-decoration: none;
  }
  ul li a:hover strong {
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  @media (max-width: 560px) {
    padding: 14px 12px;
    ul li a {
      grid-template-columns: 110px minmax(0, 1fr);
    }
  }
`;

/** The jobs of the bay, those in work first; one's own before others'. */
export function Jobs() {
  useLive();
  const page = useQuery({ queryKey: ["jobs"], queryFn: api.jobs, staleTime: 0 });
  return (
    <Opened page={page} what="the bay">
      {({ jobs }) => (
        <Screen>
          <h1>
            In the bay{" "}
            <Small>
              · <Link to="/bench">Bench</Link>
            </Small>
          </h1>
          <OwnDay />
          <Group title="In work" jobs={jobs.filter((job) => job.started_at && !job.finished_at)} />
          <Group title="Ready to hand over" jobs={jobs.filter((job) => job.finished_at)} />
          <Group title="Agreed, not begun" jobs={jobs.filter((job) => !job.started_at)} />
          {jobs.length === 0 && <p>Nothing is agreed for the bay. A yes to a quote opens a job.</p>}
        </Screen>
      )}
    </Opened>
  );
}

function Group({ title, jobs }: { title: string; jobs: BayJob[] }) {
  const { account, format } = useSession();
  if (jobs.length === 0) return null;
  const own = (job: BayJob) => (job.technician === account.name ? 0 : 1);
  return (
    <section aria-label={title}>
      <Heading style={{ marginTop: 18 }}>
        <span>{title}</span>
        <Small>{jobs.length}</Small>
      </Heading>
      <ul>
        {[...jobs]
          .sort((a, b) => own(a) - own(b))
          .map((job) => (
            <li key={job.id}>
              <Link to={`/bay/${job.id}`}>
                <Plate>{job.plate}</Plate>
                <span>
                  <strong>{job.title}</strong>
                  <Small as="p">
                    job {job.number} · {job.description}
                    {job.customer && ` · ${job.customer}`}
                  </Small>
                </span>
                <Small>
                  {job.technician ?? "nobody yet"}
                  {job.bay && `, bay ${job.bay}`}
                  {job.started_at && ` · since ${format.lately(job.started_at)}`}
                </Small>
              </Link>
            </li>
          ))}
      </ul>
    </section>
  );
}
