import styled from "styled-components";
import type { Balance } from "../../api/client";
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
  [data-older] & strong {
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
export function RunningBalance({ balance, title }: { balance: Balance | null; title: string }) {
  const { format } = useSession();
  if (!balance) return null;
  return (
    <Running aria-hidden="true">
      <span>
        {format.hours(balance.hours)} h <Small>{title}</Small>
      </span>
      <strong>{format.moneyWithSign(balance.price.total_cents)}</strong>
    </Running>
  );
}
