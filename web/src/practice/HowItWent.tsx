import styled from "styled-components";
import type { PracticeEnd } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Heading, Small, Strong } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";
import { Path } from "./Path";
import { bitsWords, plugsWords, renewedWords, saidWords, truthWords } from "./words";

const Told = styled.section`
  max-width: 640px;
`;
const Table = styled.table`
  width: 100%;
  margin: 10px 0 18px;
  ${ruledTable(8, 4)}
  th[scope="col"]:not(:first-child),
  td {
    text-align: right;
  }
  td,
  tbody th {
    vertical-align: middle;
    color: var(--ink);
    border-bottom: 1px solid var(--rule);
  }
  tr:last-child > * {
    font-weight: 650;
  }
`;
const Said = styled.ul`
  list-style: none;
  padding: 0;
  margin: 4px 0 14px;
  li {
    display: flex;
    justify-content: space-between;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
`;

/** The truth, and how it went beside how the tables would have gone about it. */
export function HowItWent({ end }: { end: PracticeEnd }) {
  const { format } = useSession();
  const { truth, bits, yours, tables, words } = end;
  const cents = (value: number | null) => (value === null ? "no price" : format.money(value));
  const rows = [
    ["Finding out", yours.finding_cents, tables.finding_cents],
    ["Renewed", yours.renewed_cents, tables.renewed_cents],
    ["The return", yours.return_cents, tables.return_cents],
    ["In all", yours.cents, tables.cents],
  ] as const;
  return (
    <Told tabIndex={0} aria-label="How it went" aria-live="polite">
      <h2 style={{ fontSize: 24, fontWeight: 650 }}>{truthWords(truth)}</h2>
      <p>
        <Strong>{renewedWords(yours)}.</Strong> {plugsWords(truth.plugs)}
      </p>
      <Heading style={{ marginTop: 14 }}>
        <span>How the truth came out</span>
        <Small>dashed: by the tables</Small>
      </Heading>
      <Path yours={yours.path} tables={tables.path} />
      <Small as="p">
        {bitsWords(bits, format)} in {format.minutes(yours.minutes)} min; the tables took{" "}
        {format.minutes(tables.minutes)} min.
      </Small>
      <Table>
        <thead>
          <tr>
            <th scope="col">Money</th>
            <th scope="col">yours</th>
            <th scope="col">by the tables</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, own, other]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td>{cents(own)}</td>
              <td>{cents(other)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {words.length > 0 && (
        <>
          <Heading>What your words say</Heading>
          <Said>
            {words.map(({ what, said }) => (
              <li key={what}>
                <span>{saidWords(what)}</span>
                <Strong>{said ? "said" : "not said"}</Strong>
              </li>
            ))}
          </Said>
        </>
      )}
      <Small as="p">
        The tables go by the best test for its minutes; with luck or a good ear you are better. Chances and minutes are
        this shop&rsquo;s own figures, the car is made up.
      </Small>
    </Told>
  );
}
