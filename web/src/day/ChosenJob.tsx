import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type DayJob, type DayPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Button, Heading, LoneLink, Notice, Plate, Small, Strong } from "../shared/parts";
import { clock, listOf, nameOf, of100, previewWords } from "./words";

/** Where a job would go: a person's list, and the place in it. */
export interface Spot {
  person: number;
  place: number;
}

interface Props {
  page: DayPage;
  job: DayJob;
  spot: Spot | null;
  onSpot: (spot: Spot | null) => void;
  onMove: (spot: Spot) => void;
  onPromise: (instant: string | null) => void;
  onGiveBack: () => void;
  isPending: boolean;
}

/** The job in hand: when it is ready, what was promised, and where else it could go, with what that would do. */
export function ChosenJob({ page, job, spot, onSpot, onMove, onPromise, onGiveBack, isPending }: Props) {
  const { format, account } = useSession();
  const writes = account.role !== "technician" && job.booked;
  const preview = useQuery({
    queryKey: ["day-preview", page.version, page.now, job.id, spot?.person, spot?.place],
    queryFn: () => api.previewMove({ job: job.id, person: spot?.person ?? 0, place: spot?.place ?? 0 }),
    enabled: spot !== null,
  });
  const list = listOf(page, spot?.person ?? job.person).filter((one) => one.id !== job.id);
  const place = spot?.place ?? listOf(page, job.person).findIndex((one) => one.id === job.id);
  const name = (id: number) => nameOf(page, id);
  return (
    <section aria-label={`Job of ${job.plate}`}>
      <Heading>
        <span style={{ display: "flex", gap: 12, alignItems: "center" }}>
          <Plate>{job.plate}</Plate>
        </span>
        <Small>
          <LoneLink as={Link} to={`/quotes/${job.quote_id}`}>
            quote {job.number}
          </LoneLink>
          {job.job_id && (
            <>
              {" · "}
              <LoneLink as={Link} to={`/bay/${job.job_id}`}>
                card
              </LoneLink>
            </>
          )}
        </Small>
      </Heading>
      <p style={{ marginTop: 4 }}>
        <Strong>{job.title}</Strong>
        <br />
        <Small>
          {job.customer ?? "No owner noted"}
          {job.phone && ` · ${job.phone}`} · {name(job.person)}
          {job.hold_until && ` · held until ${format.lately(job.hold_until)}`}
        </Small>
      </p>
      <dl>
        <div className="line">
          <dt>{job.begun ? "Begun" : "Brought"}</dt>
          <dd>{clock(job.arrives, format, page.now)}</dd>
        </div>
        <div className="line">
          <dt>
            Ready <Small>{of100(page.share)} of 100</Small>
          </dt>
          <dd>
            <Strong>{job.ready ? clock(job.ready, format, page.now) : "not within four weeks"}</Strong>
          </dd>
        </div>
        {job.promise && job.chance !== null && (
          <div className="line">
            <dt>
              Promised <Small>holds {of100(job.chance)} of 100</Small>
            </dt>
            <dd style={job.call_by ? { color: "var(--mark)" } : undefined}>{clock(job.promise, format, page.now)}</dd>
          </div>
        )}
        {job.called && (
          <div className="line">
            <dt>Told</dt>
            <dd>{job.called}</dd>
          </div>
        )}
      </dl>
      {writes && (
        <>
          <div style={{ marginTop: 12 }}>
            <Choice
              label="Whose work"
              value={String(spot?.person ?? job.person)}
              options={page.people.map((person) => ({ id: String(person.id), text: person.name }))}
              onPick={(id) => onSpot({ person: Number(id), place: listOf(page, Number(id)).length })}
            />
            <p style={{ display: "flex", gap: 10, marginTop: 10 }}>
              <Button
                onPress={() => onSpot({ person: spot?.person ?? job.person, place: place - 1 })}
                isDisabled={place <= 0}
              >
                Earlier
              </Button>
              <Button
                onPress={() => onSpot({ person: spot?.person ?? job.person, place: place + 1 })}
                isDisabled={place >= list.length}
              >
                Later
              </Button>
            </p>
          </div>
          {spot && (
            <Notice role="status" style={{ marginTop: 10 }}>
              <p>
                <Strong>
                  {name(spot.person)},{" "}
                  {spot.place === 0 ? "first" : `after ${list[spot.place - 1]?.plate ?? "the others"}`}
                </Strong>
              </p>
              {preview.data ? (
                <>
                  <p>
                    Ready {preview.data.ready ? clock(preview.data.ready, format, page.now) : "not within four weeks"}.
                  </p>
                  {previewWords(preview.data, page, format).map((words) => (
                    <p key={words}>{words}</p>
                  ))}
                </>
              ) : (
                <p>{preview.error ? preview.error.message : "Working it out…"}</p>
              )}
              <p style={{ display: "flex", gap: 10, marginTop: 8 }}>
                <Button $main onPress={() => onMove(spot)} isPending={isPending} isDisabled={!preview.data}>
                  Move it
                </Button>
                <Button onPress={() => onSpot(null)}>Leave it</Button>
              </p>
            </Notice>
          )}
          <p style={{ display: "flex", gap: 10, marginTop: 12, flexWrap: "wrap" }}>
            {job.ready && job.promise !== job.ready && (
              <Button onPress={() => onPromise(job.ready)} isPending={isPending}>
                Promise {clock(job.ready, format, page.now)}
              </Button>
            )}
            {!job.begun && (
              <Button onPress={onGiveBack} isPending={isPending}>
                Give its time back
              </Button>
            )}
          </p>
        </>
      )}
      {!job.booked && (
        <p style={{ marginTop: 8 }}>
          <Small>It was begun without a time, and stands on the board as it is worked.</Small>
        </p>
      )}
    </section>
  );
}
