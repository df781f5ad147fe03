import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { api } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Button, Notice, Plate, Small } from "../../shared/parts";
import { FrozenScope } from "./FrozenScope";

const Page = styled.main`
  max-width: 820px;
  margin: 0 auto;
  padding: 26px 32px 48px;
  header {
    display: flex;
    justify-content: space-between;
    align-items: flex-start;
    gap: 16px;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 12px;
  }
  header > :last-child {
    text-align: right;
  }
  h1 {
    font-size: 30px;
    font-weight: 650;
    line-height: 1.15;
  }
  h2 {
    font-size: 17px;
    font-weight: 650;
    margin: 22px 0 6px;
  }
  .actions {
    display: flex;
    gap: 12px;
    align-items: center;
    margin: 20px 0 10px;
  }
  @media print {
    padding: 0;
    max-width: none;
    .actions {
      display: none;
    }
  }
`;

/** A saved revision as it was shown: for reading, and for printing from the browser. */
export function RevisionRoute() {
  const { id = "", number = "" } = useParams();
  const { format, shop } = useSession();
  const page = useQuery({ queryKey: ["quote", id, "head"], queryFn: () => api.quote(id) });
  const frozen = useQuery({ queryKey: ["revision", id, number], queryFn: () => api.revision(id, number) });
  const problem = page.error ?? frozen.error;
  if (problem)
    return (
      <Page>
        <Notice role="alert">
          <p>{problem.message}</p>
          <p>
            <Link to="/">Back to the Counter</Link>
          </p>
        </Notice>
      </Page>
    );
  if (!page.data || !frozen.data) return <Page aria-busy="true">Opening the revision…</Page>;
  const { quote, vehicle } = page.data;

  return (
    <Page>
      <header>
        <div>
          <Small>{shop.name}</Small>
          <h1>Quote {quote.number}</h1>
          <Small>
            Revision {frozen.data.revision.revision}, {format.when(frozen.data.revision.created_at)},{" "}
            {frozen.data.revision.by}
            {frozen.data.provisional && " · provisional: engine only sketched"}
          </Small>
        </div>
        <div>
          <Plate>{vehicle.plate}</Plate>
          <br />
          <Small>
            {vehicle.description}, {vehicle.customer}
          </Small>
        </div>
      </header>
      {frozen.data.scopes.map((scope, i) => (
        <FrozenScope key={i} scope={scope} letter={frozen.data.scopes.length > 1 ? "ABC"[i] : undefined} />
      ))}
      <p className="actions">
        <Button $main onPress={() => window.print()}>
          Print
        </Button>
        <Button onPress={() => window.open(`/api/quotes/${id}/print.pdf?revision=${number}`, "_blank", "noopener")}>
          PDF
        </Button>
        <Link to={`/quotes/${id}`}>Back to the quote</Link>
      </p>
      <p>
        <Small>
          Times are examples from the shop's library. The maker's service information and a technician's judgment come
          first.
        </Small>
      </p>
    </Page>
  );
}
