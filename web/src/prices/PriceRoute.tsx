import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { ruledTable } from "../shared/ruledTable";
import { api, type Prices } from "../api/client";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Asked, BookPage, Button, Heading, KeyHint, LoneLink, Mono, Notice, Small, Unseen } from "../shared/parts";
import { Search } from "../shared/Search";
import type { Priced } from "./PriceDialog";
import { PriceImport } from "./PriceImport";
import { whenOpened } from "../shared/whenOpened";

const PriceDialog = whenOpened(async () => (await import("./PriceDialog")).PriceDialog);

const Table = styled.table`
  font-size: 15px;
  ${ruledTable(12, 7)}
  .number {
    white-space: nowrap;
  }
`;
const Tools = styled.span`
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
`;
const Missing = styled.section`
  border-left: 4px solid var(--ink);
  background: var(--sheet);
  padding: 10px 14px;
  margin: 14px 0;
  table {
    font-size: 14px;
    width: 100%;
  }
  td {
    padding: 5px 12px 5px 0;
    border-top: 1px solid var(--rule);
  }
  td:last-child {
    text-align: right;
    padding-right: 0;
  }
`;
const NEW: Priced = { part: "", description: "", listCents: null };

type Part = Prices["parts"][number];

/** What parts cost and sell at, and what the engines ask for that has no price yet. The owner changes it. */
export function PriceRoute() {
  const { account, format } = useSession();
  const [text, setText] = useState("");
  const [editing, setEditing] = useState<Priced | null>(null);
  const [importing, setImporting] = useState(false);
  const asked = useDeferredValue(text.trim());
  const prices = useQuery({
    queryKey: ["prices", asked],
    queryFn: () => api.prices(asked),
    placeholderData: keepPreviousData,
  });
  const writes = account.role === "owner";
  const reads = account.role !== "technician";
  useKeys([
    ...(reads ? [{ key: "i", hint: "I", label: "Import prices", run: () => setImporting(true) }] : []),
    ...(writes ? [{ key: "n", hint: "N", label: "Set a price", run: () => setEditing(NEW) }] : []),
  ]);
  const list = prices.data;

  return (
    <BookPage>
      <header>
        <h1>Prices</h1>
        <Tools>
          {list && <Small>revision {list.revision}</Small>}
          {reads && <LoneLink href="/api/prices/export">Export</LoneLink>}
          {reads && (
            <Button onPress={() => setImporting(true)}>
              Import <KeyHint>I</KeyHint>
            </Button>
          )}
          {writes && (
            <Button onPress={() => setEditing(NEW)}>
              Set a price <KeyHint>N</KeyHint>
            </Button>
          )}
        </Tools>
      </header>
      <Search
        value={text}
        onText={setText}
        told="Search prices"
        placeholder="Part number, description, supplier"
        label="Find a part by number, description or supplier"
      />
      {prices.isPending && <Small>Reading the list…</Small>}
      {prices.error && (
        <Notice role="alert">
          <p>{prices.error.message}</p>
        </Notice>
      )}
      {list && list.missing.length > 0 && !asked && (
        <Missing aria-label="Without a price">
          <Heading>
            <span>Without a price</span>
            <Small>totals with these are incomplete</Small>
          </Heading>
          <table>
            <tbody>
              {list.missing.map((row) => (
                <tr key={row.part}>
                  <td className="number">
                    <Mono>{row.part}</Mono>
                  </td>
                  <td>{row.description}</td>
                  <td>
                    <Small>
                      asked for by{" "}
                      {row.engines.map((code, i) => (
                        <span key={code}>
                          {i > 0 && ", "}
                          <Link to={`/engines/${encodeURIComponent(code)}`}>{code}</Link>
                        </span>
                      ))}
                    </Small>
                  </td>
                  <td>
                    {writes && (
                      <Button
                        onPress={() => setEditing({ part: row.part, description: row.description, listCents: null })}
                      >
                        Set a price<Unseen> for {row.part}</Unseen>
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Missing>
      )}
      {list && list.count === 0 && (
        <Notice>
          <p>No part matches “{asked}”.</p>
          <p>Try fewer words{writes ? ", or set a price for it." : "."}</p>
        </Notice>
      )}
      {list && list.count > 0 && (
        <>
          <Table aria-busy={prices.isFetching}>
            <thead>
              <tr>
                <th scope="col">Part</th>
                <th scope="col">Description</th>
                <th scope="col" className="wide">
                  Supplier
                </th>
                <th scope="col" className="figure wide">
                  their stock
                </th>
                <th scope="col" className="figure wide">
                  our shelf
                </th>
                <th scope="col" className="figure">
                  costs
                </th>
                <th scope="col" className="figure">
                  sells at
                </th>
              </tr>
            </thead>
            <tbody>
              {list.parts.map((part) => (
                <PartRow key={part.part} part={part} money={format.money} onEdit={writes ? setEditing : undefined} />
              ))}
            </tbody>
          </Table>
          {list.count > list.parts.length && <Small>and {list.count - list.parts.length} more: search for them</Small>}
        </>
      )}
      {editing && list && <PriceDialog start={editing} revision={list.revision} onClose={() => setEditing(null)} />}
      {importing && list && <PriceImport revision={list.revision} onClose={() => setImporting(false)} />}
    </BookPage>
  );
}

interface RowProps {
  part: Part;
  money: (cents: number) => string;
  onEdit?: (start: Priced) => void;
}

/** A part with a line for each supplier, the cheapest first: its cost is what the part counts as. */
function PartRow({ part, money, onEdit }: RowProps) {
  const edit = (offer?: Priced["offer"]) =>
    onEdit?.({ part: part.part, description: part.description, listCents: part.list_cents, offer });
  const line = (figure: string, change: string, offer?: Priced["offer"]) =>
    onEdit ? (
      <Asked onPress={() => edit(offer)}>
        {figure}
        <Unseen>: {change}</Unseen>
      </Asked>
    ) : (
      figure
    );
  return (
    <tr>
      <td className="number">
        <Mono>{part.part}</Mono>
      </td>
      <td>
        {part.description}
        {part.contains.length > 0 && <small>a kit: {part.contains.join(", ")}</small>}
      </td>
      <td className="wide">
        {part.offers.map((offer) => (
          <div key={offer.supplier}>{offer.supplier}</div>
        ))}
      </td>
      <td className="figure wide">
        {part.offers.map((offer) => (
          <div key={offer.supplier}>{offer.on_hand ?? "—"}</div>
        ))}
      </td>
      <td className="figure wide">{part.shelf}</td>
      <td className="figure">
        {part.offers.map((offer) => (
          <div key={offer.supplier}>
            {line(money(offer.cost_cents), `change the price of ${part.part} at ${offer.supplier}`, offer)}
          </div>
        ))}
        {part.offers.length === 0 &&
          line(part.cost_cents === null ? "none" : money(part.cost_cents), `set a price for ${part.part}`)}
      </td>
      <td className="figure">
        {part.price_cents === null ? "" : money(part.price_cents)}
        {part.list_cents !== null && <small>at most {money(part.list_cents)}</small>}
      </td>
    </tr>
  );
}
