import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Heading, Small } from "../shared/parts";
import type { EngineDraft } from "./useEngineDraft";
import { openWords, standsOn, triedWords, unlikeWords } from "./words";

const Rows = styled.dl`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  margin: 4px 0 20px;
  border-top: 1px solid var(--strong);
  > div {
    display: contents;
  }
  dt,
  dd {
    margin: 0;
    padding: 8px 0 8px 10px;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    padding-left: 0;
  }
  dd {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .hours {
    color: var(--second);
    font-size: 13px;
    padding-top: 10px;
  }
`;
const List = styled.ul`
  list-style: none;
  margin: 4px 0 20px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .asks {
    border-left: 4px solid var(--mark);
    padding-left: 10px;
  }
`;

/** Whether it quotes true: test prices, what the figures stand on, what is still open. */
export function Stands({ draft }: { draft: EngineDraft }) {
  const { format } = useSession();
  const { drawn, look, profile, isStale } = draft;
  const name = (path: string) => {
    const [, list, i] = path.split("/");
    const row = list === "steps" ? profile.steps[Number(i)] : profile.targets[Number(i)];
    return (row && "work" in row ? (row.label ?? row.id) : row?.label) ?? path;
  };
  const missing = drawn.tries.some((row) => row.missing.length > 0);
  return (
    <>
      <Heading>Does it quote true?</Heading>
      <Small as="p">the shop’s figures, a clean car</Small>
      <Rows aria-busy={isStale} aria-label="Test prices">
        {drawn.tries.map((row) => (
          <div key={row.what}>
            <dt>{triedWords(row)}</dt>
            <dd className="hours">{row.hours === null ? "no way" : `${format.hours(row.hours)} h`}</dd>
            <dd>{row.cents === null ? "" : format.money(row.cents)}</dd>
          </div>
        ))}
      </Rows>
      {missing && (
        <Small as="p" style={{ margin: "-12px 0 18px" }}>
          Without the parts that have no price yet.
        </Small>
      )}
      {look.unlike.length > 0 && (
        <List aria-label="Unlike the others">
          {look.unlike.slice(0, 4).map((row) => (
            <li key={row.path} className="asks">
              {unlikeWords(row, name, (n) => format.figure(n))}
            </li>
          ))}
        </List>
      )}
      <Heading>What it stands on</Heading>
      <List>
        {standsOn(look.origins ?? drawn.origins).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </List>
      {drawn.open.length > 0 && (
        <>
          <Heading>Still open</Heading>
          <List aria-label="Still open">
            {drawn.open.slice(0, 5).map((row) => (
              <li key={`${row.code}-${row.of}`}>{openWords(row)}</li>
            ))}
            {drawn.open.length > 5 && <li>and {drawn.open.length - 5} more</li>}
          </List>
        </>
      )}
    </>
  );
}
