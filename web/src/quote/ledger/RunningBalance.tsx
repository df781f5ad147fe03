import styled from "styled-components";
import type { Estimate } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { olderFigures } from "../../shared/olderFigures";
import { Small } from "../../shared/parts";

const Running = styled.div`
  display: none;
  position: sticky;
  bottom: 0;
  z-index: 5;
  background: var(--sheet);
  border-top: 2px solid var(--ink);
  padding: 6px 18px;
  justify-content: space-between;
  align-items: baseline;
  gap: 14px;
  strong {
    font-size: 24px;
    font-weight: 700;
    line-height: 1.1;
  }
  &[data-stale] strong {
    ${olderFigures}
  }
  @media (max-width: 1100px) {
    display: flex;
  }
  @media print {
    display: none;
  }
`;

/** The running balance where the ledger page is below the fold; the page itself reads it out. */
export function RunningBalance({ estimate, title, stale }: { estimate?: Estimate; title: string; stale: boolean }) {
  const { format } = useSession();
  if (!estimate?.price) return null;
  return (
    <Running aria-hidden="true" data-stale={stale ? "" : undefined}>
      <span>
        {format.hours(estimate.hours.quoted)} h <Small>{title}</Small>
      </span>
      <strong>{format.moneyWithSign(estimate.price.total_cents)}</strong>
    </Running>
  );
}
