import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import styled from "styled-components";
import { api, type LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { list } from "../shared/format";
import { Asked, Heading, Notice, Small, Strong } from "../shared/parts";
import { Loaded } from "../shared/Loaded";
import { Columns, Margin, Matter, Spread } from "../shared/Spread";
import { whenOpened } from "../shared/whenOpened";
import { Promises } from "./Promises";
import { Strokes } from "./Strokes";
import { costWords, dearest, overWords, taskWords } from "./words";

const JobsDialog = whenOpened(async () => (await import("./JobsDialog")).JobsDialog);

const Rows = styled.dl`
  margin: 4px 0 20px;
  border-top: 1px solid var(--strong);
  > div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    font-weight: 550;
  }
  dd {
    margin: 0;
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .said {
    grid-column: 1 / -1;
    text-align: left;
    font-size: 13px;
    color: var(--second);
  }
  .left {
    border-top: 2px solid var(--ink);
    align-items: baseline;
  }
  .left dd {
    font-size: 30px;
    font-weight: 650;
  }
`;

/** Which jobs stand behind a figure. */
export interface Behind {
  engine?: string;
  technician?: string;
}

/** Promise against truth: every finished job, whether promises hold, what costs most and by whom. */
export function LedgerRoute() {
  const page = useQuery({
    queryKey: ["ledger"],
    queryFn: api.ledger,
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.learning ? 1_500 : false),
  });
  return (
    <Loaded query={page} opening="Opening the ledger…" back="/" backWords="Back to the Counter">
      {(data) => <Ledger page={data} />}
    </Loaded>
  );
}

function Ledger({ page }: { page: LedgerPage }) {
  const { account, format } = useSession();
  const [behind, setBehind] = useState<Behind | null>(null);
  const { learned, sums } = page;
  return (
    <Spread>
      <Matter>
        <header style={{ justifyContent: "space-between" }}>
          <h1 style={{ fontSize: 30 }}>Promise and truth</h1>
          <Small role="status">
            {page.jobs} {page.jobs === 1 ? "job" : "jobs"}
            {page.since && `, since ${format.day(page.since.slice(0, 10))}`}
            {page.learning && " · reading the newest…"}
          </Small>
        </header>
        {page.jobs === 0 && (
          <Notice>
            <p>No job has been posted yet.</p>
            <p>Each one posts itself when it is handed over; a shop that has a past imports it.</p>
          </Notice>
        )}
        {page.jobs > 0 && (
          <Columns style={{ "--left": "54fr", "--right": "42fr" } as CSSProperties}>
            <div>
              <Heading>
                <span>Each job, from what was quoted to what it took</span>
                <Small>the last {page.last.length}</Small>
              </Heading>
              <Strokes jobs={page.last} />
              {learned && (
                <>
                  <Heading style={{ marginTop: 16 }}>Do the promises hold?</Heading>
                  <Promises coverage={learned.coverage.estimated} jobs={page.jobs} />
                </>
              )}
            </div>
            {learned && (
              <section aria-label="What costs most">
                <Heading>What costs most</Heading>
                <Rows>
                  {dearest(learned.engines)
                    .slice(0, 6)
                    .map((row) => (
                      <div key={row.name}>
                        <dt>
                          <Asked onPress={() => setBehind({ engine: row.name })}>{row.name}</Asked>
                        </dt>
                        <dd>{row.too_few ? "" : format.signed(-row.beyond_cents)}</dd>
                        <dd className="said">{costWords(row, format)}</dd>
                      </div>
                    ))}
                </Rows>
                {learned.tasks.length > 0 && (
                  <>
                    <Heading>Steps furthest from what was reckoned</Heading>
                    <Rows>
                      {learned.tasks.slice(0, 5).map((row) => (
                        <div key={`${row.engine}-${row.label}-${row.part}`}>
                          <dt className="said">{taskWords(row)}</dt>
                        </div>
                      ))}
                    </Rows>
                  </>
                )}
              </section>
            )}
          </Columns>
        )}
      </Matter>
      <Margin>
        <Heading>Hours against the quote</Heading>
        <Rows>
          <div>
            <dt>Hours quoted</dt>
            <dd>{format.hours(sums.quoted_hours)}</dd>
          </div>
          <div>
            <dt>Hours worked</dt>
            <dd>{format.hours(sums.worked_hours)}</dd>
          </div>
          <div>
            <dt>trouble beside them</dt>
            <dd>{format.hours(sums.trouble_hours)}</dd>
          </div>
          <div className="left">
            <dt>
              <Strong>{sums.beyond_cents > 0 ? "Worked beyond the quotes" : "Below the quotes"}</Strong>
            </dt>
            <dd>{format.moneyWithSign(Math.abs(sums.beyond_cents))}</dd>
          </div>
        </Rows>
        {learned && (
          <>
            <Heading>By who</Heading>
            <Rows>
              {learned.technicians.map((row) => (
                <div key={row.name}>
                  <dt>
                    <Asked onPress={() => setBehind({ technician: row.name })}>{row.name}</Asked>
                  </dt>
                  <dd>
                    <Small>
                      {row.too_few ? `too few jobs, ${row.jobs}` : `${overWords(row.over)}, ${row.jobs} jobs`}
                    </Small>
                  </dd>
                </div>
              ))}
            </Rows>
            <Small as="p">
              {page.entwined.length === 0
                ? "Engines are taken out of it: who works on the deep ones is not blamed for them."
                : `Engines are taken out of it, but for ${list(
                    page.entwined.map((pair) => `${pair.engine} and ${pair.technician}`),
                  )}: neither works without the other, so nobody can tell which it is.`}
            </Small>
          </>
        )}
        {account.role === "owner" && (
          <p style={{ marginTop: 16 }}>
            <a href="/api/ledger/export" download>
              Export the history
            </a>
          </p>
        )}
      </Margin>
      {behind && <JobsDialog behind={behind} onClose={() => setBehind(null)} />}
    </Spread>
  );
}
