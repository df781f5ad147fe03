import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api } from "../api/client";
import { useLive } from "../live/useLive";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Asked, BookPage, Button, KeyHint, Notice, Small } from "../shared/parts";
import { Search } from "../shared/Search";
import { whenOpened } from "../shared/whenOpened";
import { FoundRows } from "./FoundRows";
import { Needs } from "./Needs";

const NewVehicle = whenOpened(async () => (await import("./NewVehicle")).NewVehicle);
const GarageImport = whenOpened(async () => (await import("./GarageImport")).GarageImport);
const PersonDialog = whenOpened(async () => (await import("./PersonDialog")).PersonDialog);

/** What needs me now; and one search for whoever stands at the counter or is on the phone. */
export function Counter() {
  const { shop, account, format } = useSession();
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const [all, setAll] = useState(false);
  const [adding, setAdding] = useState(false);
  const [importing, setImporting] = useState(false);
  const [person, setPerson] = useState<string | null>(null);
  const asked = useDeferredValue(text.trim());
  const queries = useQueryClient();
  useLive();
  const searching = all || asked !== "";
  const needs = useQuery({ queryKey: ["counter"], queryFn: api.counter, staleTime: 0 });
  const found = useQuery({
    queryKey: ["find", asked],
    queryFn: () => api.find(asked),
    placeholderData: keepPreviousData,
    staleTime: 0,
    enabled: searching,
  });
  const start = useMutation({
    mutationFn: (vehicle: string) => api.startQuote(vehicle, crypto.randomUUID()),
    onSuccess: (page) => navigate(`/quotes/${page.quote.id}`),
  });
  // Enter takes the first car found for the words as they stand, also when the list on the page is still an older one.
  const first = useMutation({
    mutationFn: (typed: string) =>
      queries.fetchQuery({ queryKey: ["find", typed], queryFn: () => api.find(typed), staleTime: 2_000 }),
    onSuccess: (some) => some.vehicles[0] && start.mutate(some.vehicles[0].id),
  });
  const writes = account.role !== "technician";
  useKeys([...(writes ? [{ key: "n", hint: "N", label: "Add a vehicle", run: () => setAdding(true) }] : [])]);

  const enter = () => {
    if (writes && text.trim() && !first.isPending && !start.isPending) first.mutate(text.trim());
  };
  const problem = start.error ?? first.error ?? needs.error ?? found.error;
  const garage = needs.data?.vehicles;

  return (
    <BookPage>
      <header>
        <h1>{format.weekday(new Date())}: what needs you</h1>
        <Small>
          {shop.name} · {account.name}, {account.role}
        </Small>
      </header>
      <Search
        value={text}
        onText={setText}
        autoFocus
        told="Search cars, people, quotes and jobs"
        onEnter={enter}
        placeholder="Plate, name, phone, engine, quote or job"
        label="Find a car, a person, a quote or a job by plate, name, phone, engine or number"
      />
      <p style={{ display: "flex", gap: 18, justifyContent: "space-between", alignItems: "center", minHeight: 38 }}>
        <Small>
          {asked === "" &&
            (all ? (
              <>
                <Asked onPress={() => setAll(false)}>Back to what needs you</Asked>
                {writes && (
                  <>
                    {" "}
                    · <a href="/api/garage/export">Cars and owners as CSV</a> ·{" "}
                    <Asked onPress={() => setImporting(true)}>Import</Asked>
                  </>
                )}
              </>
            ) : (
              <Asked onPress={() => setAll(true)}>All cars and quotes</Asked>
            ))}
        </Small>
        {writes && (
          <Button onPress={() => setAdding(true)}>
            Add a vehicle <KeyHint>N</KeyHint>
          </Button>
        )}
      </p>
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
      {!searching && needs.isPending && <Small aria-busy="true">Reading the ledger…</Small>}
      {!searching && garage === 0 && (
        <Notice style={{ marginTop: 18 }}>
          <p>The garage is empty.</p>
          {writes && (
            <p>
              First an engine: draw one, from a pattern, under <Link to="/engines">Engines</Link>. Then{" "}
              <Asked onPress={() => setAdding(true)}>add a vehicle</Asked> with it.
            </p>
          )}
        </Notice>
      )}
      {!searching && needs.data && garage !== 0 && (
        <Needs needs={needs.data} onStart={start.mutate} isPending={start.isPending} />
      )}
      {searching && found.data && (
        <FoundRows
          found={found.data}
          asked={asked}
          isFetching={found.isFetching}
          isPending={start.isPending}
          onStart={(vehicle) => start.mutate(vehicle.id)}
          onPerson={setPerson}
        />
      )}
      {adding && (
        <NewVehicle plate={asked} onClose={() => setAdding(false)} onAdded={(vehicle) => start.mutate(vehicle.id)} />
      )}
      {importing && <GarageImport onClose={() => setImporting(false)} />}
      {person && <PersonDialog id={person} onClose={() => setPerson(null)} onStart={start.mutate} />}
    </BookPage>
  );
}
