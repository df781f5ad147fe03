import { memo, type ReactNode, useCallback, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Balance, Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { olderFigures } from "../../shared/olderFigures";
import { Asked, Part, Small, Unseen } from "../../shared/parts";
import { Learned } from "./Learned";
import { WhatIfs } from "./WhatIfs";
import { Why } from "./Why";
import { scrolls } from "../../shared/scrolls";

export const Page = styled.aside`
  background: var(--sheet);
  border-left: 5px double var(--strong);
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  @media (max-width: 1100px) {
    border-left: 0;
    border-top: 5px double var(--strong);
  }
`;

const Lines = styled.div`
  padding: 14px 18px 8px;
  ${scrolls}
  flex: 1;
  dl {
    margin: 0;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    align-items: baseline;
    border-bottom: 1px solid var(--rule);
    padding: 3.5px 0;
    min-height: 27px;
  }
  dt {
    min-width: 0;
    overflow-wrap: anywhere;
    line-height: 1.25;
  }
  dd {
    margin: 0;
    text-align: right;
    white-space: nowrap;
  }
  .group {
    font-weight: 650;
    border-bottom: 1px solid var(--rule);
    padding: 5px 0 3px;
  }
  [data-older] & dd {
    ${olderFigures}
  }
  .recomputing {
    visibility: hidden;
  }
  [data-older] & .recomputing {
    visibility: visible;
  }
`;

const Total = styled.div`
  border-top: 1.4px solid var(--ink);
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 8px 0 4px;
  gap: 8px;
  .label {
    font-size: 17px;
    font-weight: 650;
  }
  .sum {
    font-size: 32px;
    line-height: 1.1;
    font-weight: 700;
    border-bottom: 4px double var(--ink);
    white-space: nowrap;
  }
  [data-older] & .sum {
    ${olderFigures}
    border-bottom-color: var(--strong);
  }
`;

const GROUPS: [string, string[]][] = [
  ["Under our warranty", ["warranty"]],
  ["Labor", ["labor", "diagnosis"]],
  ["Parts", ["part"]],
  ["By hand", ["by-hand"]],
  ["With it", ["consumable", "supplies", "fee", "discount", "tax"]],
];

type Line = Balance["price"]["lines"][number];

/** A part that work takes and no profile names. */
const UNNAMED = "a part the profile does not name";

interface Props {
  /** What is owed; null where there is nothing to charge for. */
  balance: Balance | null;
  /** Whether that belongs to an older choice; what explains it may, while it does not. */
  owedStale: boolean;
  sheet: Sheet;
  stale: boolean;
  head: ReactNode;
  actions?: ReactNode;
  hours?: Scope["hours"];
  /** What is to be done while nothing is charged for: "Choose a cylinder, or other work". */
  lacking: string;
  onTrouble?: () => void;
  onAdjust?: () => void;
  onLines?: () => void;
  onSchools?: () => void;
  onCharge?: (charged: boolean) => void;
  when?: ReactNode;
}

/** The ruled page at the right: every line, the running total, always visible and always true. */
export function LedgerPage(props: Props) {
  const {
    balance,
    owedStale,
    sheet,
    stale,
    head,
    actions,
    hours,
    lacking,
    onTrouble,
    onAdjust,
    onLines,
    onSchools,
    onCharge,
    when,
  } = props;
  const { format } = useSession();
  const [asked, setAsked] = useState<Line | "hours" | null>(null);
  const askHours = useCallback(() => setAsked("hours"), []);
  const ask = useCallback((line: Line) => (line.kind === "by-hand" && onLines ? onLines() : setAsked(line)), [onLines]);
  const estimate = sheet.estimate;
  const price = balance?.price;

  return (
    <Page aria-label="Balance">
      <Lines aria-busy={stale}>
        {head}
        {balance && price ? (
          <>
            <PriceLines lines={price.lines} onAsk={ask} />
            <Total aria-busy={owedStale} role="status" aria-live="polite" data-testid="total">
              <span className="label">{price.incomplete ? "Total so far" : "Total"}</span>
              <span className="sum">{format.moneyWithSign(price.total_cents)}</span>
            </Total>
            {price.incomplete && (
              <p>
                <strong>Incomplete:</strong> no price for {list(price.missing?.map((row) => row.part ?? UNNAMED) ?? [])}
                . Set it under <Link to="/prices">Prices</Link>.
              </p>
            )}
            {sheet.reference_hours != null && (
              <Small as="p" style={{ paddingTop: 4 }}>
                A guide gives {format.hours(sheet.reference_hours)} h; we quote {format.hours(balance.hours)} h.
              </Small>
            )}
            {sheet.learned && <Learned learned={sheet.learned} />}
            {sheet.warranty && <Owed warranty={sheet.warranty} onCharge={onCharge} />}
            {sheet.diagnosis?.credited && (
              <Small as="p" style={{ paddingTop: 4 }}>
                Without the repair, finding out is owed: {format.money(sheet.diagnosis.owed_cents)} at most.
              </Small>
            )}
            <WhatIfs
              sheet={sheet}
              hours={hours}
              onTrouble={onTrouble}
              onHours={askHours}
              onAdjust={onAdjust}
              onLines={onLines}
              onSchools={onSchools}
              when={when}
            />
            {price.left_over && price.left_over.length > 0 && (
              <Small>
                Stays in the kit: {price.left_over.map((row) => `${row.quantity} × ${row.part}`).join(", ")}
              </Small>
            )}
          </>
        ) : (
          <p>{sheet.problem ? "No price: the job cannot be planned." : `${lacking}, and the page fills in.`}</p>
        )}
        <Small as="p" className="recomputing" aria-hidden={!stale}>
          Recomputing…
        </Small>
      </Lines>
      {actions}
      {asked && estimate && sheet.tasks && <Why asked={asked} sheet={sheet} onClose={() => setAsked(null)} />}
    </Page>
  );
}

/** Every line with its amount, in groups; each says why when it is asked. */
const PriceLines = memo(function PriceLines({ lines, onAsk }: { lines: Line[]; onAsk: (line: Line) => void }) {
  const { format } = useSession();
  return (
    <div>
      {GROUPS.map(([label, kinds]) => {
        const own = lines.filter((line) => kinds.includes(line.kind));
        if (own.length === 0) return null;
        return (
          <div key={label}>
            <div className="group">{label}</div>
            <dl>
              {own.map((line, i) => (
                <div className="line" key={`${line.kind}-${line.label}-${line.part ?? ""}-${i}`}>
                  <dt>
                    {line.kind === "labor" ? "Reach, work, refit" : line.label} <LineNote line={line} />
                  </dt>
                  <dd>
                    <Asked onPress={() => onAsk(line)}>
                      {format.money(line.cents)}
                      <Unseen> for {line.label}: why?</Unseen>
                    </Asked>
                  </dd>
                </div>
              ))}
            </dl>
          </div>
        );
      })}
    </div>
  );
});

/** What we owe of this work, and the word that it is charged all the same. */
function Owed({ warranty, onCharge }: { warranty: NonNullable<Sheet["warranty"]>; onCharge: Props["onCharge"] }) {
  const { format } = useSession();
  return (
    <Small as="p" style={{ paddingTop: 4 }}>
      {warranty.charged
        ? "What is still under our warranty is charged on this quote."
        : `${format.hours(warranty.hours)} h are ours: what we fitted there is still under our warranty.`}{" "}
      {onCharge && (
        <Asked onPress={() => onCharge(!warranty.charged)}>
          {warranty.charged ? "Price it at nothing" : "Charge it all the same"}
        </Asked>
      )}
    </Small>
  );
}

function LineNote({ line }: { line: Line }) {
  const { format } = useSession();
  if (line.kind === "labor")
    return (
      <Small>
        {format.hours(line.quantity)} h × {format.money(line.unit_cents)}
      </Small>
    );
  return (
    <>
      {line.part && line.part !== line.label && <Part>{line.part}</Part>}
      {line.quantity !== 1 && (
        <Small style={{ whiteSpace: "nowrap" }}>
          {line.quantity} × {format.money(line.unit_cents)}
        </Small>
      )}
    </>
  );
}
