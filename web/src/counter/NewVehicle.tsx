import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type EngineCard, Refused, type Vehicle } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { DistanceBox } from "../shared/fields/DistanceBox";
import { Field } from "../shared/fields/Field";
import { NumberBox } from "../shared/fields/NumberBox";
import { type Found, Pick } from "../shared/fields/Pick";
import { Asked, Button, Notice, Small } from "../shared/parts";
import { whenOpened } from "../shared/whenOpened";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 18px;
  margin-bottom: 16px;
  .wide {
    grid-column: 1 / -1;
  }
`;

const Sketch = whenOpened(async () => (await import("../workshop/Sketch")).Sketch);

interface Props {
  plate: string;
  onClose: () => void;
  onAdded: (vehicle: Vehicle) => void;
}

/** Take in a car the shop does not know yet, then go straight on to its quote. */
export function NewVehicle({ plate, onClose, onAdded }: Props) {
  const queries = useQueryClient();
  const engines = useQuery({ queryKey: ["engines"], queryFn: () => api.engines() });
  const [form, setForm] = useState({
    plate: plate.toUpperCase(),
    description: "",
    owner: "",
    phone: "",
  });
  const [year, setYear] = useState<number | null>(null);
  const [odometer, setOdometer] = useState<number | null>(null);
  const [engine, setEngine] = useState<string | null>(null);
  const [sketching, setSketching] = useState(false);
  const set = (key: keyof typeof form) => (value: string) => setForm({ ...form, [key]: value });
  const add = useMutation({
    mutationFn: () =>
      api.addVehicle({
        plate: form.plate,
        description: form.description,
        engine_code: engine ?? "",
        year,
        odometer_km: odometer === null ? null : Math.round(odometer),
        customer: form.owner ? { name: form.owner, phone: form.phone || null } : null,
      }),
    onSuccess: (vehicle) => {
      void queries.invalidateQueries({ queryKey: ["vehicles"] });
      onAdded(vehicle);
    },
  });
  const known = add.error instanceof Refused && add.error.code === "plate_known";
  const isYear = year === null || (year >= 1900 && year <= new Date().getFullYear() + 1);
  const ready = engine !== null && isYear;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };

  if (sketching)
    return (
      <Sketch
        onClose={() => setSketching(false)}
        onSketched={(code) => {
          setEngine(code);
          setSketching(false);
        }}
      />
    );
  return (
    <Dialog title="Add a vehicle" onClose={onClose}>
      <Form onSubmit={submit}>
        <Grid>
          <Field
            label="Plate"
            value={form.plate}
            onChange={set("plate")}
            isRequired
            maxLength={20}
            autoFocus
            problem={known ? "This plate is already here: search for it." : undefined}
          />
          <Field
            className="wide"
            label="Make and model"
            value={form.description}
            onChange={set("description")}
            isRequired
            maxLength={120}
          />
          {engines.data && (
            <Pick
              className="wide"
              label="Engine"
              value={engine}
              items={engines.data.engines.map(found)}
              onPick={setEngine}
              placeholder="code, kind, number of cylinders, what lies on top"
              none="No engine of the library is found by these words."
              isRequired
            />
          )}
          <p className="wide" style={{ margin: 0 }}>
            <Asked onPress={() => setSketching(true)}>Not in the library: sketch it in five questions</Asked>
          </p>
          <NumberBox
            label="Year"
            value={year}
            onValue={setYear}
            decimals={0}
            least={0}
            plain
            problem={isYear ? undefined : "Is no model year of a car."}
          />
          <DistanceBox label="Odometer" km={odometer} onKm={setOdometer} />
          <Field label="Owner" value={form.owner} onChange={set("owner")} maxLength={120} />
          <Field label="Phone" value={form.phone} onChange={set("phone")} maxLength={40} />
        </Grid>
        {add.error && !known && (
          <Notice role="alert">
            <p>{add.error.message}</p>
          </Notice>
        )}
        <Button type="submit" $main isDisabled={!ready} isPending={add.isPending}>
          Add and start a quote
        </Button>{" "}
        {!ready && (
          <Small>{engine === null ? "Still needed: the engine." : "The year is no model year of a car."}</Small>
        )}
      </Form>
    </Dialog>
  );
}

/** An engine by everything an advisor may know of it. */
function found(engine: EngineCard): Found {
  const kind = `${engine.arrangement}, ${engine.mounting}, ${engine.cylinders} cylinders, ${engine.ignition}`;
  return {
    id: engine.code,
    text: `${engine.code}, ${engine.name}`,
    more: kind,
    words: [engine.code, engine.name, kind, engine.notes].join(" "),
  };
}
