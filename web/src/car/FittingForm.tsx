import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type CarPage, type Fitting } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { DayBox } from "../shared/fields/DayBox";
import { DistanceBox } from "../shared/fields/DistanceBox";
import { Field } from "../shared/fields/Field";
import { faultsByPath } from "../shared/faults";
import { Button, Notice } from "../shared/parts";
import { FITTED } from "./fittings";

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px 14px;
  align-items: end;
  margin-bottom: 12px;
  @media (max-width: 560px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const ALL = "all";
const US = "us";

interface Props {
  vehicle: CarPage["vehicle"];
  cylinders: number[];
  onFitted: (page: CarPage) => void;
}

/** What was fitted to a car, noted after the fact. */
export function FittingForm({ vehicle, cylinders, onFitted }: Props) {
  const { shop } = useSession();
  const today = new Intl.DateTimeFormat("en-CA", { timeZone: shop.time_zone }).format(new Date());
  const [work, setWork] = useState<Fitting["work"]>("coil");
  const [place, setPlace] = useState(ALL);
  const [on, setOn] = useState<string | null>(today);
  const [km, setKm] = useState<number | null>(vehicle.odometer_km);
  const [whose, setWhose] = useState(US);
  const [by, setBy] = useState("");
  const note = useMutation({
    mutationFn: () =>
      api.noteFitting(vehicle.id, {
        work,
        cylinders: place === ALL ? cylinders : [Number(place)],
        on: on ?? today,
        km: km === null ? null : Math.round(km),
        ours: whose === US,
        by,
      }),
    onSuccess: onFitted,
  });
  const faults = faultsByPath(note.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    note.mutate();
  };
  return (
    <Form onSubmit={submit}>
      <Fields>
        <Choice
          label="What"
          value={work}
          options={Object.entries(FITTED).map(([id, text]) => ({ id, text }))}
          onPick={(id) => setWork(id as Fitting["work"])}
        />
        <Choice
          label="Cylinder"
          value={place}
          options={[{ id: ALL, text: "all" }, ...cylinders.map((n) => ({ id: String(n), text: String(n) }))]}
          onPick={setPlace}
        />
        <DayBox label="Day" value={on} onDay={setOn} problem={faults["/on"]} />
        <DistanceBox label="Odometer then" km={km} onKm={setKm} />
        <Choice
          label="By"
          value={whose}
          options={[
            { id: US, text: "us" },
            { id: "others", text: "somebody else" },
          ]}
          onPick={setWhose}
        />
        {whose === US ? <span /> : <Field label="Who" value={by} onChange={setBy} maxLength={120} />}
      </Fields>
      {note.error && !faults["/on"] && (
        <Notice role="alert">
          <p>{note.error.message}</p>
        </Notice>
      )}
      <Button type="submit" isPending={note.isPending}>
        Note it
      </Button>
    </Form>
  );
}
