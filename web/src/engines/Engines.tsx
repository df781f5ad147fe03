import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { ruledTable } from "../shared/ruledTable";
import { api } from "../api/client";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Button, KeyHint, Mono, Notice, BookPage, Small } from "../shared/parts";
import { Search } from "../shared/Search";
import { whenOpened } from "../shared/whenOpened";
import { ImportDialog } from "./ImportDialog";

const Patterns = whenOpened(async () => (await import("./Patterns")).Patterns);

const Table = styled.table`
  font-size: 15px;
  ${ruledTable(8, 9)}
  tr:hover td {
    background: var(--sheet);
  }
`;

/** The engine library: find an engine by anything known of it; hours of its plugs from the easiest to the deepest. */
export function Engines() {
  const { format, account } = useSession();
  const [text, setText] = useState("");
  const [importing, setImporting] = useState(false);
  const [copying, setCopying] = useState(false);
  const asked = useDeferredValue(text.trim());
  const engines = useQuery({
    queryKey: ["engines", asked],
    queryFn: () => api.engines(asked),
    placeholderData: keepPreviousData,
  });
  const writes = account.role !== "technician";
  const owns = account.role === "owner";
  useKeys([
    ...(owns ? [{ key: "c", hint: "C", label: "Copy a pattern", run: () => setCopying(true) }] : []),
    ...(writes ? [{ key: "i", hint: "I", label: "Import an engine profile", run: () => setImporting(true) }] : []),
  ]);

  return (
    <BookPage>
      <header>
        <h1>Engines</h1>
        {writes && (
          <span style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
            {owns && (
              <Button onPress={() => setCopying(true)}>
                Copy a pattern <KeyHint>C</KeyHint>
              </Button>
            )}
            <Button onPress={() => setImporting(true)}>
              Import a profile <KeyHint>I</KeyHint>
            </Button>
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
              : owns
                ? "Copy a pattern whose layers lie as on your engine, or import a profile."
                : "The owner copies a pattern or imports a profile."}
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
      {copying && <Patterns onClose={() => setCopying(false)} />}
      {importing && <ImportDialog onClose={() => setImporting(false)} />}
    </BookPage>
  );
}
