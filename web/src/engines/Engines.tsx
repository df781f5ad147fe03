import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { ruledTable } from "../shared/ruledTable";
import { api } from "../api/client";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { BookPage, Button, KeyHint, LoneLink, Mono, Notice, Small } from "../shared/parts";
import { Search } from "../shared/Search";
import { whenOpened } from "../shared/whenOpened";
import { ImportDialog } from "./ImportDialog";

const NewEngine = whenOpened(async () => (await import("../workshop/NewEngine")).NewEngine);
const LibraryDialog = whenOpened(async () => (await import("../workshop/LibraryDialog")).LibraryDialog);

const Table = styled.table`
  font-size: 15px;
  ${ruledTable(8, 9)}
  tr:hover td {
    background: var(--sheet);
  }
`;

const Under = styled.ul`
  list-style: none;
  margin: 14px 0 4px;
  padding: 0 0 0 14px;
  border-left: 4px solid var(--ink);
  li {
    padding: 3px 0;
  }
`;

/** The engine library: find an engine by anything known of it; hours of its plugs from the easiest to the deepest. */
export function Engines() {
  const { format, account } = useSession();
  const [text, setText] = useState("");
  const [importing, setImporting] = useState(false);
  const [beginning, setBeginning] = useState(false);
  const [gathering, setGathering] = useState(false);
  const asked = useDeferredValue(text.trim());
  const engines = useQuery({
    queryKey: ["engines", asked],
    queryFn: () => api.engines(asked),
    placeholderData: keepPreviousData,
  });
  const writes = account.role !== "technician";
  const drafts = useQuery({ queryKey: ["drafts"], queryFn: api.drafts });
  useKeys([
    ...(writes ? [{ key: "n", hint: "N", label: "A new engine", run: () => setBeginning(true) }] : []),
    ...(writes ? [{ key: "i", hint: "I", label: "Import an engine profile", run: () => setImporting(true) }] : []),
  ]);

  return (
    <BookPage>
      <header>
        <h1>Engines</h1>
        {writes && (
          <span style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
            <Button $main onPress={() => setBeginning(true)}>
              New engine <KeyHint>N</KeyHint>
            </Button>
            <Button onPress={() => setImporting(true)}>
              Import a profile <KeyHint>I</KeyHint>
            </Button>
            <Button onPress={() => setGathering(true)}>Import a library</Button>
            <LoneLink href="/api/library" download style={{ alignSelf: "center" }}>
              Export all
            </LoneLink>
          </span>
        )}
      </header>
      <Search
        value={text}
        onText={setText}
        told="Search engines"
        placeholder="Code, kind, number of cylinders, part number, layer, plate"
        label="Find an engine by code, kind, number of cylinders, part number, layer or plate"
      />
      {writes && drafts.data && drafts.data.drafts.length > 0 && !asked && (
        <Under aria-label="Under the pencil">
          {drafts.data.drafts.map((draft) => (
            <li key={draft.code}>
              <Mono>{draft.code}</Mono>{" "}
              <Link to={`/workshop/${encodeURIComponent(draft.code)}`}>{draft.name || draft.code}</Link>{" "}
              <Small>
                under the pencil{draft.by ? `, ${draft.by}` : ""}, {format.lately(draft.updated_at)}
              </Small>
            </li>
          ))}
        </Under>
      )}
      {engines.isPending && <Small>Reading the library…</Small>}
      {engines.error && (
        <Notice role="alert">
          <p>{engines.error.message}</p>
        </Notice>
      )}
      {engines.data?.engines.length === 0 && (
        <Notice>
          <p>{asked ? `No engine matches “${asked}”.` : "The library is empty."}</p>
          <p>
            {asked
              ? "Try fewer words, or import a profile."
              : "Draw a new engine, from a pattern whose layers lie as on yours, or import a profile."}
          </p>
        </Notice>
      )}
      {engines.data && engines.data.engines.length > 0 && (
        <Table aria-busy={engines.isFetching}>
          <thead>
            <tr>
              <th scope="col">Code</th>
              <th scope="col">Engine</th>
              <th scope="col" className="figure">
                easiest plug
              </th>
              <th scope="col" className="figure">
                hardest
              </th>
              <th scope="col" className="figure">
                all plugs
              </th>
              <th scope="col" className="figure wide">
                cars here
              </th>
            </tr>
          </thead>
          <tbody>
            {engines.data.engines.map((engine) => (
              <tr key={engine.code}>
                <td>
                  <Mono>{engine.code}</Mono>
                </td>
                <td>
                  <Link to={`/engines/${encodeURIComponent(engine.code)}`}>{engine.name}</Link>
                  {engine.provisional && <Small> provisional</Small>}
                  <small>
                    {engine.cylinders === 1 ? "one cylinder" : `${engine.cylinders} cylinders`} ·{" "}
                    {engine.ignition.replaceAll("-", " ")} · revision {engine.revision}
                  </small>
                </td>
                <td className="figure">
                  {engine.easiest?.hours == null ? (
                    "no way"
                  ) : (
                    <>
                      {format.hours(engine.easiest.hours)} h <Small>no. {engine.easiest.cylinder}</Small>
                    </>
                  )}
                </td>
                <td className="figure">
                  {engine.hardest?.hours == null ? (
                    "no way"
                  ) : (
                    <>
                      {format.hours(engine.hardest.hours)} h <Small>no. {engine.hardest.cylinder}</Small>
                    </>
                  )}
                </td>
                <td className="figure">
                  {engine.all_plugs === null ? "no way" : `${format.hours(engine.all_plugs)} h`}
                </td>
                <td className="figure wide">{engine.vehicles}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {beginning && <NewEngine onClose={() => setBeginning(false)} />}
      {gathering && <LibraryDialog onClose={() => setGathering(false)} />}
      {importing && <ImportDialog onClose={() => setImporting(false)} />}
    </BookPage>
  );
}
