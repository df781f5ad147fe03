import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type WhenPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { MomentBox } from "../shared/fields/MomentBox";
import { Asked, Button, KeyHint, LoneLink, Notice, Small, Strong } from "../shared/parts";
import { clock, of100 } from "./words";

const Times = styled.ol`
  list-style: none;
  padding: 0;
  margin: 10px 0 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 2px 16px;
    align-items: center;
    border-top: 1px solid var(--rule);
    padding: 8px 0;
  }
`;

type Offered = WhenPage["offers"][number];

interface Asking {
  /** By when the customer wants it. */
  wanted?: string;
  /** From when the parts are there. */
  parts_at?: string;
}

/** When a quote's work can be, asked for beside everything else: the total never waits for it. */
export function useWhen(quote: string, of: unknown, asked: Asking = {}, isReady = true) {
  return useQuery({
    enabled: isReady,
    queryKey: ["when", quote, of, asked],
    queryFn: () => api.when(quote, asked),
    placeholderData: (before) => before,
    staleTime: 30_000,
    retry: false,
  });
}

/** The soonest that can be offered. */
export const soonest = (page: WhenPage | undefined): Offered | undefined =>
  page?.offers
    .filter((one) => one.ready !== null)
    .sort((one, other) => (one.ready ?? "").localeCompare(other.ready ?? ""))[0];

interface LineProps {
  page: WhenPage;
  /** Minutes the engine has to cool first, where it comes warm. */
  cooling?: number;
  onAsk: () => void;
}

/** One line under the total: the time that is taken, or the soonest there is. */
export function WhenLine({ page, cooling, onAsk }: LineProps) {
  const { format } = useSession();
  const { booking } = page;
  const first = soonest(page);
  const say = (instant: string) => clock(instant, format, page.now);
  const at = booking ? (booking.promise ?? booking.ready) : first?.ready;
  return (
    <div className="line">
      <dt>
        Ready{" "}
        <Small>
          {booking
            ? `here ${say(booking.arrives)}${booking.chance === null ? "" : `, holds ${of100(booking.chance)} of 100`}`
            : first
              ? `when here by ${say(first.drop_off)}`
              : "no time in the next days"}
          {!booking && cooling ? `, ${format.minutes(cooling)} min to cool` : ""}
        </Small>
      </dt>
      <dd>
        <Asked onPress={onAsk}>
          {at ? say(at) : "when?"} <KeyHint>/</KeyHint>
        </Asked>
      </dd>
    </div>
  );
}

interface Props {
  quote: string;
  of: unknown;
  writes: boolean;
  onClose: () => void;
}

/** When can it be? Times with what each would cost, a wish with its chance, one press to take. */
export function WhenDialog({ quote, of, writes, onClose }: Props) {
  const { format } = useSession();
  const queries = useQueryClient();
  const [wanted, setWanted] = useState<string | null>(null);
  const [partsAt, setPartsAt] = useState<string | null>(null);
  const page = useWhen(quote, of, { wanted: wanted ?? undefined, parts_at: partsAt ?? undefined });
  const again = () => {
    void queries.invalidateQueries({ queryKey: ["when"] });
    void queries.invalidateQueries({ queryKey: ["day"] });
  };
  const take = useMutation({
    mutationFn: ({ offer, version, share }: { offer: Offered; version: number; share: number }) =>
      api.bookTime(
        {
          quote_id: quote,
          version,
          person: offer.person ?? 0,
          place: offer.place ?? 0,
          arrives: offer.drop_off,
          arrival: offer.arrival,
          parts_at: partsAt,
          promise: offer.ready,
          chance: offer.chance ?? share,
        },
        crypto.randomUUID(),
      ),
    onSettled: again,
  });
  const back = useMutation({
    mutationFn: ({ id, version }: { id: string; version: number }) => api.giveTimeBack(id, version),
    onSettled: again,
  });
  const data = page.data;
  const problem = page.error ?? take.error ?? back.error;
  const say = (instant: string) => clock(instant, format, data?.now ?? "");
  return (
    <Dialog title="When can it be?" onClose={onClose}>
      {!data && !problem && <Small role="status">Playing the days through…</Small>}
      {data?.booking && (
        <>
          <p>
            <Strong>
              Bring it {say(data.booking.arrives)}
              {data.booking.promise && `, ready ${say(data.booking.promise)}`}
            </Strong>
          </p>
          <p>
            <Small>
              {data.people[data.booking.person] ?? "Nobody yet"}
              {data.booking.chance !== null && ` · holds ${of100(data.booking.chance)} times in 100`}
              {data.booking.parts_at && ` · parts from ${say(data.booking.parts_at)}`}
              {data.booking.hold_until && ` · held until ${format.lately(data.booking.hold_until)}, firm with the yes`}
            </Small>
          </p>
          <p style={{ display: "flex", gap: 12, marginTop: 14 }}>
            <LoneLink as={Link} to="/day">
              See the day
            </LoneLink>
            {writes && (
              <Button
                onPress={() => data.booking && back.mutate({ id: data.booking.id, version: data.version })}
                isPending={back.isPending}
              >
                Give its time back
              </Button>
            )}
          </p>
        </>
      )}
      {data && !data.booking && (
        <>
          <div style={{ display: "grid", gap: 12 }}>
            <MomentBox
              label="Wanted by"
              value={wanted}
              onMoment={setWanted}
              help="How sure that is for each time it may be brought. Empty: as soon as can be."
            />
            <MomentBox
              label="Parts here from"
              value={partsAt}
              onMoment={setPartsAt}
              help="Nothing is begun before. Empty: they are here."
            />
          </div>
          <Times aria-busy={page.isFetching}>
            {data.offers.map((offer) => (
              <li key={offer.drop_off}>
                <span>
                  <Strong>Here by {say(offer.drop_off)}</Strong>
                  <br />
                  <Small>{offerWords(offer, data)}</Small>
                </span>
                <Strong>
                  {offer.ready ? say(offer.ready) : "none"}
                  {wanted && offer.chance !== undefined && <Small> · wish {of100(offer.chance)} of 100</Small>}
                </Strong>
                {writes && offer.ready ? (
                  <Button
                    onPress={() => take.mutate({ offer, version: data.version, share: data.share })}
                    isPending={take.isPending}
                    aria-label={`Take ${say(offer.drop_off)}, ready ${say(offer.ready)}`}
                  >
                    Take
                  </Button>
                ) : (
                  <span />
                )}
              </li>
            ))}
          </Times>
          {data.offers.length === 0 && <Small>Choose the work first: then the days can be looked at.</Small>}
        </>
      )}
      {problem && (
        <Notice role="alert" style={{ marginTop: 12 }}>
          <p>{problem.message}</p>
        </Notice>
      )}
    </Dialog>
  );
}

const ARRIVAL = { cold: "", warm: "comes warm, has to cool", hot: "comes hot, has to cool" } as const;

/** Who does it, what the engine's heat means, and whose promise it would cost. */
function offerWords(offer: Offered, page: WhenPage): string {
  if (offer.ready === null) return "would break a promise, or is never over";
  const harm = offer.harm?.map((one) => `${one.plate} ${of100(one.before)} to ${of100(one.after)}`) ?? [];
  return [
    page.people[String(offer.person)] ?? "",
    `${of100(page.share)} of 100`,
    ARRIVAL[offer.arrival],
    harm.length > 0 ? `costs ${harm.join(", ")}` : "",
  ]
    .filter((one) => one !== "")
    .join(" · ");
}
