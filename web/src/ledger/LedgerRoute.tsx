import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import { Link } from "react-router";
import { api, type LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { list } from "../shared/format";
import { Asked, Button, Heading, LoneLink, Notice, Small, Strong } from "../shared/parts";
import { Loaded } from "../shared/Loaded";
import { Columns, Margin, Matter, Spread } from "../shared/Spread";
import { whenOpened } from "../shared/whenOpened";
import { CostsMost } from "./CostsMost";
import { LessonBox } from "./LessonBox";
import { Promises } from "./Promises";
import { PromisesOfWhen } from "./PromisesOfWhen";
import { Rows } from "./Rows";
import { Strokes } from "./Strokes";
import { comebackWords, overWords } from "./words";

const JobsDialog = whenOpened(async () => (await import("./JobsDialog")).JobsDialog);
const PastDialog = whenOpened(async () => (await import("./PastDialog")).PastDialog);

/** Which jobs stand behind a figure. */
export interface Behind {
  engine?: string;
  technician?: string;
  month?: string;
}

/** Promise against truth: every finished job, whether promises hold, what costs most and by whom. */
export function LedgerRoute() {
  const page = useQuery({
    queryKey: ["ledger"],
    queryFn: api.ledger,
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data?.learning != null ? 1_500 : false),
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
  const [isBringing, setBringing] = useState(false);
  const { learned, sums } = page;
  return (
    <Spread>
      <Matter>
        <header style={{ justifyContent: "space-between" }}>
          <h1 style={{ fontSize: 30 }}>Promise and truth</h1>
          <Small role="status">
            {page.jobs} {page.jobs === 1 ? "job" : "jobs"}
            {page.since && `, since ${format.day(page.since.slice(0, 10))}`}
            {page.learning !== null && ` · reading the newest, ${Math.round(page.learning * 100)} %…`}
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
                  <Promises
                    rows={[
                      { promised: 50, share: learned.coverage.estimated.p50 },
                      { promised: 80, share: learned.coverage.estimated.p80 },
                      { promised: 95, share: learned.coverage.estimated.p95 },
                    ]}
                    count={page.jobs}
                    of="jobs"
                  />
                </>
              )}
              <PromisesOfWhen />
            </div>
            {learned && (
              <div>
                <LessonBox page={page} />
                <CostsMost learned={learned} onBehind={setBehind} />
              </div>
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
        <Heading style={{ marginTop: 18 }}>Came back within warranty</Heading>
        <Small as="p" style={{ marginTop: 6 }}>
          {comebackWords(page.comebacks, page.jobs)}
        </Small>
        <div className="end">
          {account.role === "owner" && (
            <>
              <Button onPress={() => setBringing(true)}>Bring a past along</Button>
              <LoneLink href="/api/ledger/export" download>
                Export the history
              </LoneLink>
              <LoneLink href="/api/ledger/table" download>
                as a table
              </LoneLink>
            </>
          )}
          <Link to="/practice">Practise on a made-up car</Link>
        </div>
      </Margin>
      {behind && <JobsDialog behind={behind} onClose={() => setBehind(null)} />}
      {isBringing && <PastDialog onClose={() => setBringing(false)} />}
    </Spread>
  );
}
