import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { api, type Comparison } from "../api/client";
import { DescentDrawing } from "../quote/drawing/DescentDrawing";
import { ReachDrawing } from "../quote/drawing/ReachDrawing";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { BookPage, Heading, Mono, Notice, Small } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";

const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 34px;
  margin: 12px 0 18px;
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const With = styled.div`
  display: grid;
  grid-template-columns: 1.6fr 1fr;
  gap: 12px;
`;
const Table = styled.table`
  font-size: 14px;
  ${ruledTable(8, 5)}
  .differs {
    font-weight: 650;
    box-shadow: inset 0 -2px var(--mark);
  }
`;
const Lines = styled.ul`
  list-style: none;
  margin: 4px 0 18px;
  padding: 0;
  columns: 2;
  font-size: 14px;
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    break-inside: avoid;
    overflow-wrap: anywhere;
  }
`;

/** Two profiles side by side: two revisions of one engine, or two engines. */
export function CompareRoute() {
  const [query, setQuery] = useSearchParams();
  const asked = {
    a: query.get("a") ?? "",
    b: query.get("b") ?? "",
    a_revision: query.get("a_revision") ?? undefined,
    b_revision: query.get("b_revision") ?? undefined,
  };
  const engines = useQuery({ queryKey: ["engines"], queryFn: () => api.engines() });
  const left = useQuery({ queryKey: ["engine", asked.a, "plug"], queryFn: () => api.engine(asked.a, "plug") });
  const found = useQuery({
    queryKey: ["comparison", asked],
    queryFn: () => api.compare(asked),
    enabled: asked.a !== "",
  });
  const choose = (key: string, value: string) => {
    const next = new URLSearchParams(query);
    next.set(key, value);
    if (key === "b") next.delete("b_revision");
    setQuery(next, { replace: true });
  };
  const right = useQuery({
    queryKey: ["engine", asked.b, "plug"],
    queryFn: () => api.engine(asked.b, "plug"),
    enabled: asked.b !== "",
  });
  const revisionsOf = (engine: typeof left.data) =>
    (engine?.revisions ?? []).map((row) => ({ id: String(row.revision), text: `revision ${row.revision}` }));
  const drafts = useQuery({ queryKey: ["drafts"], queryFn: api.drafts });
  const all = (code: string, engine: typeof left.data) => [
    ...(drafts.data?.drafts.some((draft) => draft.code === code) ? [{ id: "draft", text: "under the pencil" }] : []),
    ...revisionsOf(engine),
  ];
  return (
    <BookPage>
      <header>
        <h1>Side by side</h1>
        <Small>
          <Link to={`/engines/${encodeURIComponent(asked.a)}`}>{asked.a}</Link>
        </Small>
      </header>
      <Two>
        <Choice
          label={`Revision of ${asked.a}`}
          value={asked.a_revision ?? String(found.data?.sides[0]?.revision ?? "")}
          options={all(asked.a, left.data)}
          onPick={(id) => choose("a_revision", id)}
        />
        <With>
          <Choice
            label="With"
            value={asked.b}
            options={(engines.data?.engines ?? []).map((row) => ({ id: row.code, text: `${row.code}, ${row.name}` }))}
            onPick={(id) => choose("b", id)}
          />
          <Choice
            label={`Revision of ${asked.b} beside it`}
            value={asked.b_revision ?? String(found.data?.sides[1]?.revision ?? "")}
            options={all(asked.b, right.data)}
            onPick={(id) => choose("b_revision", id)}
          />
        </With>
      </Two>
      {found.error && (
        <Notice role="alert">
          <p>{found.error.message}</p>
        </Notice>
      )}
      {found.data && <Beside found={found.data} />}
    </BookPage>
  );
}

function Beside({ found }: { found: Comparison }) {
  const { format } = useSession();
  const say = (minutes: { remove: number; refit: number } | null, key: "remove" | "refit") =>
    minutes === null ? "" : format.figure(minutes[key]);
  return (
    <>
      <Two>
        {found.sides.map((side, i) => (
          <section key={i} aria-label={`${side.code}, ${revisionWords(side.revision)}`}>
            <Heading>
              <span>
                <Mono>{side.code}</Mono> {side.name}
              </span>
              <Small>{revisionWords(side.revision)}</Small>
            </Heading>
            <ReachDrawing reach={side.page.reach} chosen={[]} stale={false} lifted={[]} />
            {side.page.descent && (
              <DescentDrawing descent={side.page.descent} active={null} onActive={() => undefined} height={130} />
            )}
          </section>
        ))}
      </Two>
      <Heading>What differs</Heading>
      {found.changes.length === 0 ? (
        <Small as="p">Nothing: both say the same.</Small>
      ) : (
        <Lines>
          {found.changes.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </Lines>
      )}
      <Heading>
        <span>Layer by layer</span>
        <Small>likely minutes off, on</Small>
      </Heading>
      <Table>
        <thead>
          <tr>
            <th scope="col">Layer</th>
            {found.sides.map((side, i) => (
              <th scope="colgroup" colSpan={2} className="figure" key={i}>
                {side.code}, {revisionWords(side.revision)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.rows.map((row, i) => {
            const differs = JSON.stringify(row.left) === JSON.stringify(row.right) ? undefined : "differs";
            return (
              <tr key={i}>
                <td className={differs}>{row.label}</td>
                <td className="figure">{say(row.left, "remove")}</td>
                <td className="figure">{say(row.left, "refit")}</td>
                <td className="figure">{say(row.right, "remove")}</td>
                <td className="figure">{say(row.right, "refit")}</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </>
  );
}

const revisionWords = (revision: number | null) => (revision === null ? "under the pencil" : `revision ${revision}`);
