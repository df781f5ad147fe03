import { Link, useNavigate } from "react-router";
import type { Found, Vehicle } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Heading, KeyHint, Mono, Notice, Small, Unseen } from "../shared/parts";
import { QuoteRows } from "./QuoteRows";
import { Columns, PressRows } from "./rows";

interface Props {
  found: Found;
  asked: string;
  isFetching: boolean;
  isPending: boolean;
  onStart: (vehicle: Vehicle) => void;
  onPerson: (id: string) => void;
}

/** What was found for some words: cars and people at the left, quotes and jobs at the right. */
export function FoundRows({ found, asked, isFetching, isPending, onStart, onPerson }: Props) {
  const { account, format } = useSession();
  const navigate = useNavigate();
  const writes = account.role !== "technician";
  return (
    <Columns aria-busy={isFetching}>
      <div>
        <Heading style={{ minHeight: 36 }}>
          <span style={{ alignSelf: "center" }}>{writes ? "Start a quote" : "Vehicles"}</span>
        </Heading>
        <PressRows>
          {found.vehicles.map((vehicle, i) => (
            <li key={vehicle.id} data-acts="" data-first={i === 0 && asked ? "" : undefined}>
              <button type="button" onClick={() => onStart(vehicle)} disabled={!writes || isPending}>
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
              <Small className="acts">
                <Link to={`/cars/${vehicle.id}`}>
                  Car <Unseen>{vehicle.plate}</Unseen>
                </Link>
              </Small>
            </li>
          ))}
        </PressRows>
        {found.vehicles.length === 0 && (
          <Notice style={{ marginBottom: 18 }}>
            <p>{asked ? `No vehicle matches “${asked}”.` : "The garage is empty."}</p>
            {writes && <p>{asked ? "Check the plate, or add the vehicle." : "Add the first vehicle."}</p>}
          </Notice>
        )}
        {found.people.length > 0 && (
          <section aria-label="People found">
            <Heading>
              <span>People</span>
            </Heading>
            <PressRows>
              {found.people.map((person) => (
                <li key={person.id}>
                  <button type="button" onClick={() => onPerson(person.id)}>
                    <Unseen>Open </Unseen>
                    <span className="clip" style={{ gridColumn: "1 / 3" }}>
                      {person.name}
                    </span>
                    <Small>{person.phone ?? person.email}</Small>
                    {person.wishes && <Small className="sub">{person.wishes}</Small>}
                  </button>
                </li>
              ))}
            </PressRows>
          </section>
        )}
      </div>
      <div>
        {found.jobs.length > 0 && (
          <section aria-label="Jobs found">
            <Heading style={{ minHeight: 36 }}>
              <span style={{ alignSelf: "center" }}>Jobs</span>
            </Heading>
            <PressRows>
              {found.jobs.map((job) => (
                <li key={job.number}>
                  <button type="button" onClick={() => void navigate(`/quotes/${job.quote_id}/yes`)}>
                    <Unseen>Open </Unseen>
                    <span>Job {job.number}</span>
                    <span className="clip">{job.title}</span>
                    <span className="figure">{format.money(job.agreed_cents)}</span>
                    <Small className="sub">agreed {format.when(job.opened_at)}</Small>
                  </button>
                </li>
              ))}
            </PressRows>
          </section>
        )}
        <Heading style={{ minHeight: 36 }}>
          <span style={{ alignSelf: "center" }}>Quotes, newest first</span>
        </Heading>
        {found.quotes.length === 0 ? (
          <Notice>
            <p>{asked ? `No quote matches “${asked}”.` : "No quotes yet."}</p>
            {!asked && <p>Choose a vehicle to start one.</p>}
          </Notice>
        ) : (
          <QuoteRows quotes={found.quotes} />
        )}
      </div>
    </Columns>
  );
}
