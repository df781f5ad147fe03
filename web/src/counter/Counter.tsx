import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { api, type QuoteCard, type Vehicle } from "../api/client";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Button, Heading, KeyHint, Mono, Notice, BookPage, Small, Unseen } from "../shared/parts";
import { Search } from "../shared/Search";
import { whenOpened } from "../shared/whenOpened";

const NewVehicle = whenOpened(async () => (await import("./NewVehicle")).NewVehicle);

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 40px;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 28px;
  }
`;
const Rows = styled.ul`
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    border-bottom: 1px solid var(--rule);
  }
  button {
    width: 100%;
    text-align: left;
    border: 0;
    background: none;
    cursor: pointer;
    padding: 9px 8px;
    display: grid;
    gap: 0 14px;
    align-items: baseline;
    grid-template-columns: 106px minmax(0, 1fr) auto;
  }
  button:disabled {
    cursor: default;
  }
  button:enabled:hover,
  li[data-first] button {
    background: var(--sheet);
  }
  .figure {
    text-align: right;
    font-weight: 650;
  }
  .sub {
    grid-column: 2 / -1;
  }
  .clip {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** What a customer at the counter or on the phone needs first: find the car, start or reopen a quote. */
export function Counter() {
  const { shop, account, format } = useSession();
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const [adding, setAdding] = useState(false);
  const asked = useDeferredValue(text.trim());
  const queries = useQueryClient();
  const vehicles = useQuery({
    queryKey: ["vehicles", asked],
    queryFn: () => api.vehicles(asked),
    placeholderData: keepPreviousData,
  });
  const quotes = useQuery({
    queryKey: ["quotes", asked],
    queryFn: () => api.quotes(asked),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const start = useMutation({
    mutationFn: (vehicle: Vehicle) => api.startQuote(vehicle.id, crypto.randomUUID()),
    onSuccess: (page) => navigate(`/quotes/${page.quote.id}`),
  });
  // Enter takes the first car found for the words as they stand, also when the list on the page is still an older one.
  const first = useMutation({
    mutationFn: (typed: string) =>
      queries.fetchQuery({ queryKey: ["vehicles", typed], queryFn: () => api.vehicles(typed), staleTime: 2_000 }),
    onSuccess: (found) => found.vehicles[0] && start.mutate(found.vehicles[0]),
  });
  const writes = account.role !== "technician";

  useKeys([...(writes ? [{ key: "n", hint: "N", label: "Add a vehicle", run: () => setAdding(true) }] : [])]);

  const enter = () => {
    if (writes && text.trim() && !first.isPending && !start.isPending) first.mutate(text.trim());
  };
  const problem = start.error ?? first.error ?? vehicles.error ?? quotes.error;

  return (
    <BookPage>
      <header>
        <h1>Counter</h1>
        <Small>
          {shop.name} · {account.name}, {account.role}
        </Small>
      </header>
      <Search
        value={text}
        onText={setText}
        autoFocus
        told="Search vehicles and quotes"
        onEnter={enter}
        placeholder="Plate, name, phone or engine code"
        label="Find a vehicle or a quote by plate, name, phone or engine code"
      />
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
      <Columns>
        <section aria-busy={vehicles.isFetching}>
          <Heading style={{ minHeight: 36 }}>
            <span style={{ alignSelf: "center" }}>{writes ? "Start a quote" : "Vehicles"}</span>
            {writes && (
              <Button onPress={() => setAdding(true)}>
                Add a vehicle <KeyHint>N</KeyHint>
              </Button>
            )}
          </Heading>
          <Rows>
            {vehicles.data?.vehicles.map((vehicle, i) => (
              <li key={vehicle.id} data-first={i === 0 && asked ? "" : undefined}>
                <button type="button" onClick={() => start.mutate(vehicle)} disabled={!writes || start.isPending}>
                  {writes && <Unseen>Start a quote for </Unseen>}
                  <Mono>{vehicle.plate}</Mono>
                  <span className="clip">{vehicle.customer ?? "No owner noted"}</span>
                  {i === 0 && asked && writes ? <KeyHint>Enter</KeyHint> : <span />}
                  <Small className="sub">
                    {vehicle.description}
                    {vehicle.year ? `, ${vehicle.year}` : ""} · {vehicle.engine_code}
                    {vehicle.odometer_km ? ` · ${format.distance(vehicle.odometer_km)}` : ""}
                  </Small>
                </button>
              </li>
            ))}
          </Rows>
          {vehicles.data?.vehicles.length === 0 && (
            <Notice>
              <p>{asked ? `No vehicle matches “${asked}”.` : "The garage is empty."}</p>
              {asked ? (
                <p>{writes ? "Check the plate, or add the vehicle." : "Check the plate."}</p>
              ) : (
                writes && (
                  <p>
                    First an engine: copy a pattern under <Link to="/engines">Engines</Link>. Then add the first vehicle
                    with it.
                  </p>
                )
              )}
            </Notice>
          )}
        </section>
        <section aria-busy={quotes.isFetching}>
          <Heading style={{ minHeight: 36 }}>
            <span style={{ alignSelf: "center" }}>Quotes, newest first</span>
          </Heading>
          <QuoteRows quotes={quotes.data?.quotes} open={(id) => navigate(`/quotes/${id}`)} asked={asked} />
        </section>
      </Columns>
      {adding && (
        <NewVehicle plate={asked} onClose={() => setAdding(false)} onAdded={(vehicle) => start.mutate(vehicle)} />
      )}
    </BookPage>
  );
}

function QuoteRows({ quotes, open, asked }: { quotes?: QuoteCard[]; open: (id: string) => void; asked: string }) {
  const { format } = useSession();
  if (!quotes) return <Small>Reading the ledger…</Small>;
  if (quotes.length === 0)
    return (
      <Notice>
        <p>{asked ? `No quote matches “${asked}”.` : "No quotes yet."}</p>
        {!asked && <p>Choose a vehicle to start one.</p>}
      </Notice>
    );
  return (
    <Rows>
      {quotes.map((quote) => (
        <li key={quote.id}>
          <button type="button" onClick={() => open(quote.id)}>
            <Unseen>{`Open quote ${quote.number} for `}</Unseen>
            <Mono>{quote.plate}</Mono>
            <span className="clip">{quote.summary || "Not saved yet"}</span>
            <span className="figure">{quote.total_cents === null ? "" : format.money(quote.total_cents)}</span>
            <Small className="sub">
              {quote.customer && `${quote.customer} · `}Quote {quote.number} ·{" "}
              {quote.latest_revision ? `revision ${quote.latest_revision}` : "draft"} · {format.when(quote.updated_at)}
            </Small>
          </button>
        </li>
      ))}
    </Rows>
  );
}
