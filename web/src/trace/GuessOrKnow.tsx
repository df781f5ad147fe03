import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { list } from "../shared/format";
import { Heading, Small, Strong } from "../shared/parts";
import type { Tracing } from "./useTrace";
import { testWords } from "./words";

const Rows = styled.dl`
  margin: 4px 0 18px;
  border-top: 1px solid var(--strong);
  > div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  dt small,
  dt span {
    display: block;
  }
  dd {
    margin: 0;
    font-variant-numeric: tabular-nums;
    text-align: right;
  }
  .worth {
    border-top: 2px solid var(--ink);
    align-items: baseline;
  }
  .worth dd {
    font-size: 30px;
    font-weight: 650;
  }
`;

interface Props {
  tracing: Tracing;
}

/** Guessing beside knowing, and what finding out has used of what was agreed. */
export function Fair({ tracing }: Props) {
  const { format } = useSession();
  const { worth } = tracing.sheet;
  const { agreed, used_hours: used } = tracing.findingOut;
  const nothing = (share: number) => `for nothing in ${Math.round(share * 100)} of 100`;
  return (
    <>
      {worth && (
        <section aria-label="Guess or know">
          <Heading>Guess or know</Heading>
          <Rows>
            <div>
              <dt>
                Renew now: {list(worth.guess.labels)}
                <Small>{nothing(worth.guess.for_nothing)}</Small>
              </dt>
              <dd>{format.money(worth.guess.cents)}</dd>
            </div>
            {worth.know && (
              <div>
                <dt>
                  One more test, then renew
                  <Small>
                    {testWords({ ...worth.know, with: worth.know.with ?? undefined }).toLowerCase()};{" "}
                    {nothing(worth.know.for_nothing)}
                  </Small>
                </dt>
                <dd>{format.money(worth.know.cents)}</dd>
              </div>
            )}
            {worth.worth_cents !== null && (
              <div className="worth">
                <dt>
                  <Strong>{worth.worth_cents >= 0 ? "Knowing is worth" : "Knowing costs more than it saves"}</Strong>
                </dt>
                <dd>{format.moneyWithSign(Math.abs(worth.worth_cents))}</dd>
              </div>
            )}
          </Rows>
        </section>
      )}
      <section aria-label="Finding out">
        <Heading>Finding out, as agreed</Heading>
        <Rows>
          <div>
            <dt>
              up to
              {agreed?.buys && <Small>{agreed.buys}</Small>}
            </dt>
            <dd>
              {agreed
                ? `${format.figure(agreed.hours)} h × ${format.money(agreed.rate_cents)}`
                : "not in the quote yet"}
            </dd>
          </div>
          <div>
            <dt>used so far</dt>
            <dd>{format.hours(used)} h</dd>
          </div>
          {agreed && agreed.credited_cents > 0 && (
            <div>
              <dt>credited with the repair</dt>
              <dd>{format.signed(-agreed.credited_cents)}</dd>
            </div>
          )}
        </Rows>
        {agreed?.reached && (
          <p role="alert">
            <Strong>Stop and call: what was agreed for finding out is used up.</Strong>
          </p>
        )}
      </section>
    </>
  );
}
