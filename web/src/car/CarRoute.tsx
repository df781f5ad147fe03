import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type CarFile, type Finding } from "../api/client";
import { QuoteRows } from "../counter/QuoteRows";
import { Columns, NeedRows } from "../counter/rows";
import { useLive } from "../live/useLive";
import { said } from "../quote/vehicle/findings";
import { useSession } from "../session/SessionGate";
import { Loaded } from "../shared/Loaded";
import { BookPage, Button, Heading, KeyHint, Notice, Plate, Small } from "../shared/parts";
import { useKeys } from "../shared/keys";
import { whenOpened } from "../shared/whenOpened";
import { CARRIED } from "../yes/words";
import { fittedWords } from "./fittings";

const CarDialog = whenOpened(async () => (await import("./CarDialog")).CarDialog);

/** Everything the shop has on one car. Looking starts nothing. */
export function CarRoute() {
  const { id = "" } = useParams();
  useLive();
  const file = useQuery({ queryKey: ["car-file", id], queryFn: () => api.carFile(id), staleTime: 0 });
  return (
    <Loaded query={file} back="/" backWords="Back to the Counter" opening="Looking for the car…">
      {(data) => <Car file={data} />}
    </Loaded>
  );
}

function Car({ file }: { file: CarFile }) {
  const { account, format } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [changing, setChanging] = useState(false);
  const { vehicle, readings, former_owners: former, fittings } = file.car;
  const writes = account.role !== "technician";
  const start = useMutation({
    mutationFn: () => api.startQuote(vehicle.id, crypto.randomUUID()),
    onSuccess: (page) => navigate(`/quotes/${page.quote.id}`),
  });
  useKeys([
    { key: "e", hint: "E", label: "Change the car", run: () => setChanging(true) },
    ...(writes ? [{ key: "q", hint: "Q", label: "Start a quote", run: () => start.mutate() }] : []),
  ]);

  return (
    <BookPage>
      <header>
        <h1 style={{ display: "flex", gap: 16, alignItems: "center" }}>
          <Plate>{vehicle.plate}</Plate> {vehicle.customer ?? "No owner noted"}
        </h1>
        <span style={{ display: "flex", gap: 10, flexWrap: "wrap" }}>
          {writes && (
            <Button $main onPress={() => start.mutate()} isPending={start.isPending}>
              Start a quote <KeyHint>Q</KeyHint>
            </Button>
          )}
          <Button onPress={() => setChanging(true)}>
            {writes ? "Change the car" : "The car"} <KeyHint>E</KeyHint>
          </Button>
        </span>
      </header>
      <p style={{ margin: "10px 0 4px" }}>
        {vehicle.description}
        {vehicle.year ? `, ${vehicle.year}` : ""} ·{" "}
        <Link to={`/engines/${encodeURIComponent(vehicle.engine_code)}`}>{vehicle.engine_code}</Link>
        {vehicle.odometer_km !== null && ` · ${format.distance(vehicle.odometer_km)}`}
        {vehicle.phone && ` · ${vehicle.phone}`}
      </p>
      {start.error && (
        <Notice role="alert">
          <p>{start.error.message}</p>
        </Notice>
      )}
      <Columns>
        <section aria-label="Its quotes and jobs">
          <Heading>
            <span>Quotes and jobs</span>
            <Small>{file.quotes.length}</Small>
          </Heading>
          {file.quotes.length === 0 ? (
            <Notice>
              <p>No quote was made for this car yet.</p>
            </Notice>
          ) : (
            <QuoteRows quotes={file.quotes} ofOneCar />
          )}
        </section>
        <div>
          <Plain title="Found" rows={file.findings.map((row) => ({ key: row.id, what: foundWords(row) }))} />
          <Plain title="Fitted" rows={fittings.map((row) => ({ key: row.id, what: fittedWords(row, format) }))} />
          <Plain
            title="Written to them"
            rows={file.letters.map((row) => ({
              key: `${row.at} ${row.kind} ${row.number}`,
              what: `${LETTERS[row.kind]} ${row.number}, by ${row.channel} to ${row.address}`,
              when: `${CARRIED[row.state]} · ${format.lately(row.at)}`,
            }))}
          />
          <Plain
            title="Odometer"
            rows={readings.map((row) => ({
              key: `${row.at} ${row.km}`,
              what: format.distance(row.km) + (row.reason ? `: ${row.reason}` : ""),
              when: format.lately(row.at),
            }))}
          />
          <Plain
            title="Owners before"
            rows={former.map((row) => ({ key: row.until, what: row.name, when: `until ${format.lately(row.until)}` }))}
          />
        </div>
      </Columns>
      {changing && (
        <CarDialog
          id={vehicle.id}
          cylinders={file.cylinders}
          onClose={() => setChanging(false)}
          onChanged={() => void queries.invalidateQueries({ queryKey: ["car-file", vehicle.id] })}
        />
      )}
    </BookPage>
  );
}

const LETTERS: Record<CarFile["letters"][number]["kind"], string> = {
  offer: "Quote",
  struck: "A yes struck, quote",
  "called-off": "Called off, quote",
};

const foundWords = (row: Finding) => (row.cylinder === null ? said(row) : `${said(row)}, cylinder ${row.cylinder}`);

interface Line {
  key: string;
  what: string;
  when?: string;
}

/** Short facts under a heading; nothing where there are none. */
function Plain({ title, rows }: { title: string; rows: Line[] }) {
  if (rows.length === 0) return null;
  return (
    <section aria-label={title}>
      <Heading style={{ justifyContent: "flex-start", gap: 7 }}>
        <span>{title}</span>
        <Small>{rows.length}</Small>
      </Heading>
      <NeedRows>
        {rows.map((row) => (
          <li key={row.key} style={{ display: "flex", justifyContent: "space-between", minHeight: 38 }}>
            <span>{row.what}</span>
            <Small>{row.when}</Small>
          </li>
        ))}
      </NeedRows>
    </section>
  );
}
