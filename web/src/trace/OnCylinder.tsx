import styled from "styled-components";
import type { TraceSheet } from "../api/client";
import { Heading } from "../shared/parts";
import { causeWords, inHundred } from "./words";

const Rows = styled.dl`
  margin: 4px 0 16px;
  border-top: 1px solid var(--strong);
  > div {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr) 52px;
    gap: 10px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  dt,
  dd {
    margin: 0;
  }
  .bar {
    height: 13px;
  }
  .bar i {
    display: block;
    height: 100%;
    min-width: 3px;
    border: 1px solid var(--ink);
    background: var(--depth-5);
  }
  dd:last-child {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
`;

interface Props {
  sheet: TraceSheet;
  cylinder: number;
}

/** What it may be on one cylinder, the likeliest first; what is not at any cylinder stands below. */
export function OnCylinder({ sheet, cylinder }: Props) {
  const here = sheet.hypotheses.filter(
    (one) => one.cause !== "elsewhere" && (one.now ?? one.cylinders).includes(cylinder),
  );
  const elsewhere = sheet.hypotheses.filter((one) => one.cause === "elsewhere");
  return (
    <section aria-label={`On number ${cylinder}`}>
      <Heading>On number {cylinder}</Heading>
      <Rows>
        {[...here.slice(0, 7), ...elsewhere].map((one) => (
          <div key={`${one.cause}-${one.part ?? ""}-${one.target ?? ""}-${one.cylinders.join()}`}>
            <dt>{causeWords(one)}</dt>
            <dd className="bar" aria-hidden="true">
              <i style={{ width: `${one.chance * 100}%` }} />
            </dd>
            <dd>{inHundred(one.chance)}</dd>
          </div>
        ))}
      </Rows>
    </section>
  );
}
