import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { api, type CarPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { DistanceBox } from "../shared/fields/DistanceBox";
import { Field } from "../shared/fields/Field";
import { NumberBox } from "../shared/fields/NumberBox";
import { faultsByPath } from "../shared/faults";
import { Asked, Button, Heading, Notice, Small, Unseen } from "../shared/parts";
import { FittingForm } from "./FittingForm";
import { fittedWords } from "./fittings";

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px 18px;
  margin-bottom: 12px;
  align-items: end;
  @media (max-width: 560px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Gap = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px;
`;
const Rows = styled.ul`
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
  border-top: 1px solid var(--strong);
  font-size: 14px;
  li {
    display: flex;
    justify-content: space-between;
    gap: 14px;
    border-bottom: 1px solid var(--rule);
    padding: 6px 0;
  }
`;

interface Props {
  id: string;
  /** Numbers of the engine's cylinders, where something can be fitted. */
  cylinders: number[];
  onClose: () => void;
  onChanged: (page: CarPage) => void;
}

/** A car over the years: its number, who owns it, what its odometer showed, what was fitted to it. */
export function CarDialog({ id, cylinders, onClose, onChanged }: Props) {
  const page = useQuery({ queryKey: ["car", id], queryFn: () => api.car(id) });
  return (
    <Dialog title={page.data?.vehicle.plate ?? "The car"} onClose={onClose} wide>
      {page.isPending && <Small>Looking…</Small>}
      {page.error && (
        <Notice role="alert">
          <p>{page.error.message}</p>
        </Notice>
      )}
      {page.data && <Car page={page.data} cylinders={cylinders} onChanged={onChanged} />}
    </Dialog>
  );
}

function Car({ page, cylinders, onChanged }: { page: CarPage } & Pick<Props, "cylinders" | "onChanged">) {
  const queries = useQueryClient();
  const { account, format } = useSession();
  const writes = account.role !== "technician";
  const { vehicle, fittings, readings, former_owners: former } = page;
  const [plate, setPlate] = useState(vehicle.plate);
  const [description, setDescription] = useState(vehicle.description);
  const [year, setYear] = useState<number | null>(vehicle.year);
  const [number, setNumber] = useState(page.maker_number ?? "");
  const [owner, setOwner] = useState(vehicle.customer ?? "");
  const [phone, setPhone] = useState(vehicle.phone ?? "");
  const [km, setKm] = useState<number | null>(vehicle.odometer_km);
  const [reason, setReason] = useState("");
  const notes = page.plug_notes ?? {};
  const [low, setLow] = useState<number | null>(notes.gap_mm?.low ?? null);
  const [high, setHigh] = useState<number | null>(notes.gap_mm?.high ?? null);
  const [torqueNote, setTorqueNote] = useState(notes.torque_note ?? "");
  const taken = {
    onSuccess: (fresh: CarPage) => {
      queries.setQueryData(["car", vehicle.id], fresh);
      ["counter", "find"].forEach((key) => void queries.invalidateQueries({ queryKey: [key] }));
      onChanged(fresh);
    },
  };
  const change = useMutation({
    mutationFn: () =>
      api.changeCar(vehicle.id, {
        maker_number: number,
        plate,
        description,
        year,
        plug_notes: {
          gap_mm: low === null && high === null ? null : { low: low ?? high ?? 0, high: high ?? low ?? 0 },
          torque_note: torqueNote,
        },
        ...(owner.trim() !== (vehicle.customer ?? "") && {
          owner: owner.trim() === "" ? null : { name: owner, phone: phone || null },
        }),
      }),
    ...taken,
  });
  const read = useMutation({
    mutationFn: () => api.readOdometer(vehicle.id, { km: Math.round(km ?? 0), reason }),
    ...taken,
    onSuccess: (fresh: CarPage) => {
      setReason("");
      taken.onSuccess(fresh);
    },
  });
  const withdraw = useMutation({ mutationFn: (fitting: string) => api.withdrawFitting(vehicle.id, fitting), ...taken });
  const faults = { ...faultsByPath(change.error), ...faultsByPath(read.error) };
  const said = change.error ?? read.error ?? withdraw.error;
  const submit = (run: () => void) => (event: FormEvent) => {
    event.preventDefault();
    run();
  };

  return (
    <>
      <p style={{ marginBottom: 12 }}>
        <Small>
          {vehicle.engine_code} · <Link to={`/bench?car=${vehicle.id}`}>on the bench</Link>
        </Small>
      </p>
      <Form onSubmit={submit(change.mutate)}>
        <Fields>
          <Field
            label="Plate"
            value={plate}
            onChange={setPlate}
            maxLength={20}
            isRequired
            isDisabled={!writes}
            problem={faults["/plate"]}
          />
          <NumberBox
            label="Year"
            value={year}
            onValue={setYear}
            decimals={0}
            least={0}
            plain
            isDisabled={!writes}
            problem={faults["/year"]}
          />
          <Field
            label="Make and model"
            value={description}
            onChange={setDescription}
            maxLength={120}
            isRequired
            isDisabled={!writes}
          />
          <span />
          <Field
            label="Maker's number"
            value={number}
            onChange={setNumber}
            maxLength={40}
            isDisabled={!writes}
            problem={faults["/maker_number"]}
            help="Seventeen letters and digits, where the car has one."
          />
          <span />
          <Field
            label="Owner"
            value={owner}
            onChange={setOwner}
            maxLength={120}
            isDisabled={!writes}
            help={owner.trim() !== (vehicle.customer ?? "") ? "The car changes hands." : undefined}
          />
          {owner.trim() !== (vehicle.customer ?? "") && (
            <Field label="Their phone" value={phone} onChange={setPhone} maxLength={40} />
          )}
          <Gap>
            <NumberBox
              label="Its own gap, from, mm"
              value={low}
              onValue={setLow}
              decimals={2}
              least={0}
              placeholder="as the profile says"
              isDisabled={!writes}
              problem={faults["/plug_notes/gap_mm"] ?? faults["/plug_notes/gap_mm/low"]}
            />
            <NumberBox
              label="to, mm"
              value={high}
              onValue={setHigh}
              decimals={2}
              least={0}
              isDisabled={!writes}
              problem={faults["/plug_notes/gap_mm/high"]}
            />
          </Gap>
          <Field
            label="Note on the torque"
            value={torqueNote}
            onChange={setTorqueNote}
            maxLength={120}
            isDisabled={!writes}
            placeholder="insert in 3: by hand, then as stated"
            help="Gap and note stand on the next card, its paper and the bench."
          />
        </Fields>
        {writes && (
          <Button type="submit" isPending={change.isPending}>
            Keep the car as it is here
          </Button>
        )}
        {former.length > 0 && (
          <p>
            <Small>Before: {former.map((row) => `${row.name}, until ${format.lately(row.until)}`).join("; ")}</Small>
          </p>
        )}
      </Form>
      <Heading style={{ marginTop: 20 }}>
        <span>Odometer</span>
      </Heading>
      <Form onSubmit={submit(read.mutate)}>
        <Fields>
          <DistanceBox label="Shows now" km={km} onKm={setKm} problem={faults["/km"]} isDisabled={!writes} />
          {(reason !== "" || faults["/km"] || (km !== null && km < (vehicle.odometer_km ?? 0))) && (
            <Field label="Why it is lower" value={reason} onChange={setReason} maxLength={200} />
          )}
        </Fields>
        {writes && (
          <Button type="submit" isPending={read.isPending} isDisabled={km === null}>
            Keep the reading
          </Button>
        )}
      </Form>
      <p style={{ margin: "6px 0 0" }}>
        <Small>
          {readings
            .slice(0, 6)
            .map((row) => `${format.distance(row.km)}, ${format.lately(row.at)}${row.reason && ` (${row.reason})`}`)
            .join(" · ")}
        </Small>
      </p>
      <Heading style={{ marginTop: 20 }}>
        <span>Fitted</span>
        <Small>{fittings.length === 0 ? "nothing noted" : "ours are under warranty for a while"}</Small>
      </Heading>
      <Rows>
        {fittings.map((fitting) => (
          <li key={fitting.id}>
            <span>{fittedWords(fitting, format)}</span>
            {writes && (
              <Small>
                <Asked onPress={() => withdraw.mutate(fitting.id)}>
                  By mistake<Unseen>: {fittedWords(fitting, format)}</Unseen>
                </Asked>
              </Small>
            )}
          </li>
        ))}
      </Rows>
      {writes && <FittingForm vehicle={vehicle} cylinders={cylinders} onFitted={taken.onSuccess} />}
      {said && Object.keys(faults).length === 0 && (
        <Notice role="alert">
          <p>{said.message}</p>
        </Notice>
      )}
    </>
  );
}
