import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { api, type BillPage } from "../api/client";
import { useLive } from "../live/useLive";
import { useSession } from "../session/SessionGate";
import { Loaded } from "../shared/Loaded";
import { Asked, BookPage, Heading, LoneLink, Notice, Plate, Small, Strong } from "../shared/parts";
import { ReasonDialog } from "../shared/ReasonDialog";
import { IssueForm } from "./IssueForm";
import { Payments } from "./Payments";
import { factWords, lineWords, shownRows, whyWords } from "./words";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 44px;
  margin-top: 18px;
  align-items: start;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 24px;
  }
`;
const Lines = styled.table`
  border-top: 1px solid var(--strong);
  th {
    font-size: 13px;
    font-weight: 400;
    color: var(--second);
    text-align: left;
    padding: 6px 0;
  }
  td {
    border-top: 1px solid var(--rule);
    padding: 6px 0;
    vertical-align: baseline;
  }
  .figure {
    text-align: right;
    padding-left: 18px;
    white-space: nowrap;
  }
  .was {
    color: var(--second);
  }
  tr[data-moved] td:first-child {
    font-weight: 650;
  }
  tfoot td {
    border-top: 2px solid var(--ink);
    font-size: 17px;
    font-weight: 650;
    padding-top: 9px;
  }
`;
const Sum = styled.p`
  font-size: 30px;
  font-weight: 650;
  line-height: 1.15;
  small {
    display: block;
    font-size: 13px;
    font-weight: 400;
    color: var(--second);
  }
`;

/** The bill of a job: agreed beside billed before it is issued, and what was paid. */
export function BillRoute() {
  const { id = "" } = useParams();
  useLive();
  const page = useQuery({ queryKey: ["bill", id], queryFn: () => api.bill(id), staleTime: 0 });
  return (
    <Loaded query={page} back="/" backWords="Back to the Counter" opening="Working the bill out…">
      {(data) => <Bill page={data} />}
    </Loaded>
  );
}

type Issued = BillPage["bills"][number];

function Bill({ page }: { page: BillPage }) {
  const { format } = useSession();
  const queries = useQueryClient();
  const [crediting, setCrediting] = useState<Issued | null>(null);
  const { job, draft, bills } = page;
  const put = (fresh: BillPage) => {
    queries.setQueryData(["bill", job.id], fresh);
    void queries.invalidateQueries({ queryKey: ["counter"] });
  };
  const credit = useMutation({
    mutationFn: ({ bill, reason }: { bill: string; reason: string }) =>
      api.creditBill(bill, reason, crypto.randomUUID()),
    onSuccess: (fresh) => {
      put(fresh);
      setCrediting(null);
    },
  });
  const live = bills.find((bill) => bill.kind === "bill" && !bill.credited);

  return (
    <BookPage>
      <header>
        <h1 style={{ display: "flex", gap: 16, alignItems: "center" }}>
          <Plate>{page.plate}</Plate> {live ? `Bill ${live.number}` : `Bill of job ${job.number}`}
        </h1>
        <Small>
          {page.customer ?? "No owner noted"} · {page.description} · <Link to={`/bay/${job.id}`}>the card</Link> ·{" "}
          <Link to={`/quotes/${job.quote_id}/yes`}>what was agreed</Link>
        </Small>
      </header>
      <Columns>
        <div>
          {draft ? (
            <Draft draft={draft} job={job} />
          ) : live ? (
            <Frozen bill={live} />
          ) : (
            <Notice>
              <p>The card of this job is not finished yet: what it comes to stands there until it is.</p>
              <p>A deposit can be noted now.</p>
            </Notice>
          )}
          {bills
            .filter((bill) => bill !== live)
            .map((bill) => (
              <p key={bill.id} style={{ marginTop: 12 }}>
                <LoneLink href={`/api/bills/${bill.id}/bill.pdf`} target="_blank" rel="noreferrer">
                  {bill.kind === "bill" ? `Bill ${bill.number}` : `Credit note ${bill.number}`}
                </LoneLink>{" "}
                <Small>
                  {format.day(bill.issued_on)}, {format.money(bill.total_cents)}
                  {bill.kind === "bill" ? ", credited" : `, puts bill ${bill.credits} right: ${bill.reason}`}
                </Small>
              </p>
            ))}
        </div>
        <div>
          {draft && <IssueForm key={draft.answer.total_cents} page={page} draft={draft} onIssued={put} />}
          {live && (
            <section aria-label="Where it stands">
              <Owed page={page} />
              <p style={{ display: "flex", gap: 16, flexWrap: "wrap", marginTop: 8 }}>
                <LoneLink href={`/api/bills/${live.id}/bill.pdf`} target="_blank" rel="noreferrer">
                  The bill on paper
                </LoneLink>
                <Asked onPress={() => setCrediting(live)}>Put it right by a credit note</Asked>
              </p>
            </section>
          )}
          <Payments key={`${page.due_on} ${page.owed_cents}`} page={page} onPaid={put} />
        </div>
      </Columns>
      {crediting && (
        <ReasonDialog
          title={`Put bill ${crediting.number} right`}
          follows={
            "A credit note of its own lines is issued with the next number. " +
            "What was paid stands for the new bill, which is worked out anew."
          }
          act="Issue the credit note"
          placeholder="made out to the wrong name"
          isPending={credit.isPending}
          problem={credit.error}
          onAct={(reason) => credit.mutate({ bill: crediting.id, reason })}
          onClose={() => setCrediting(null)}
        />
      )}
    </BookPage>
  );
}

/** What is still to pay, by when; or that it is settled. */
function Owed({ page }: { page: BillPage }) {
  const { format } = useSession();
  const owed = page.owed_cents;
  if (owed === 0) return <Sum>Paid in full</Sum>;
  return (
    <Sum>
      {format.moneyWithSign(Math.abs(owed))}
      <small>{owed > 0 ? `to pay${page.due_on ? ` by ${format.day(page.due_on)}` : ""}` : "to give back"}</small>
    </Sum>
  );
}

function Draft({ draft, job }: { draft: NonNullable<BillPage["draft"]>; job: BillPage["job"] }) {
  const { format } = useSession();
  const { answer, rows } = draft;
  const facts = factWords(draft.facts);
  const was = (cents: number | null) => (cents === null ? "–" : format.money(cents));
  return (
    <section aria-label="Agreed beside billed">
      <Heading>
        <span>Agreed beside billed</span>
        <Small>not above {format.money(answer.limit_cents)}</Small>
      </Heading>
      {facts.length > 0 && (
        <p style={{ margin: "2px 0 10px" }}>
          <Strong>{facts.join(". ")}.</Strong>
        </p>
      )}
      <Lines>
        <thead>
          <tr>
            <th>What</th>
            <th className="figure">Agreed</th>
            <th className="figure">Billed</th>
          </tr>
        </thead>
        <tbody>
          {shownRows(rows).map((row) => (
            <tr key={`${row.kind} ${row.part ?? row.label}`} data-moved={row.why.length > 0 ? "" : undefined}>
              <td>
                {lineWords(row, format.figure)}
                {row.why.length > 0 && <Small> · {whyWords(row.why)}</Small>}
              </td>
              <td className="figure was">{was(row.agreed_cents)}</td>
              <td className="figure">{was(row.cents)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>Total</td>
            <td className="figure was">{format.money(job.agreed_cents)}</td>
            <td className="figure">{format.moneyWithSign(answer.total_cents)}</td>
          </tr>
        </tfoot>
      </Lines>
      {answer.included_tax_cents !== undefined && (
        <Small as="p">It contains {format.money(answer.included_tax_cents)} of tax.</Small>
      )}
    </section>
  );
}

/** A bill as it was issued. */
function Frozen({ bill }: { bill: Issued }) {
  const { format } = useSession();
  return (
    <section aria-label={`Bill ${bill.number}`}>
      <Heading>
        <span>For {bill.payer}</span>
        <Small>
          issued {format.day(bill.issued_on)}
          {bill.by && ` by ${bill.by}`}
        </Small>
      </Heading>
      <Lines>
        <tbody>
          {shownRows(bill.lines).map((line, i) => (
            <tr key={`${i} ${line.label}`}>
              <td>{lineWords(line, format.figure)}</td>
              <td className="figure">{format.money(line.cents)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>Total</td>
            <td className="figure">{format.moneyWithSign(bill.total_cents)}</td>
          </tr>
        </tfoot>
      </Lines>
    </section>
  );
}
