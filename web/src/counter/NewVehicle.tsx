import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, Refused, type Vehicle } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/Field";
import { numeral } from "../shared/numerals";
import { Button, Notice } from "../shared/parts";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 18px;
  margin-bottom: 16px;
  .wide {
    grid-column: 1 / -1;
  }
  select {
    width: 100%;
    padding: 7px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    min-height: 38px;
  }
  .name {
    font-size: 13px;
    color: var(--second);
    display: block;
    margin-bottom: 3px;
  }
`;

interface Props {
  plate: string;
  onClose: () => void;
  onAdded: (vehicle: Vehicle) => void;
}

/** Take in a car the shop does not know yet, then go straight on to its quote. */
export function NewVehicle({ plate, onClose, onAdded }: Props) {
  const { format, shop } = useSession();
  const queries = useQueryClient();
  const engines = useQuery({ queryKey: ["engines"], queryFn: () => api.engines() });
  const [form, setForm] = useState({
    plate: plate.toUpperCase(),
    description: "",
    year: "",
    odometer: "",
    owner: "",
    phone: "",
    engine: "",
  });
  const set = (key: keyof typeof form) => (value: string) => setForm({ ...form, [key]: value });
  const odometer = numeral(form.odometer)?.number;
  const engine = form.engine || engines.data?.engines[0]?.code || "";
  const add = useMutation({
    mutationFn: () =>
      api.addVehicle({
        plate: form.plate,
        description: form.description,
        engine_code: engine,
        year: form.year ? Number(form.year) : null,
        odometer_km: odometer === undefined ? null : Math.round(format.toKm(odometer)),
        customer: form.owner ? { name: form.owner, phone: form.phone || null } : null,
      }),
    onSuccess: (vehicle) => {
      void queries.invalidateQueries({ queryKey: ["vehicles"] });
      onAdded(vehicle);
    },
  });
  const known = add.error instanceof Refused && add.error.code === "plate_known";
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };

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
          <label>
            <span className="name">Engine</span>
            <select value={engine} onChange={(event) => set("engine")(event.target.value)}>
              {engines.data?.engines.map((row) => (
                <option key={row.code} value={row.code}>
                  {row.code}, {row.name}
                </option>
              ))}
            </select>
          </label>
          <Field
            className="wide"
            label="Make and model"
            value={form.description}
            onChange={set("description")}
            isRequired
            maxLength={120}
          />
          <Field label="Year" value={form.year} onChange={set("year")} inputMode="numeric" pattern="(19|20)[0-9]{2}" />
          <Field
            label={`Odometer, ${shop.distance_unit}`}
            value={form.odometer}
            onChange={set("odometer")}
            inputMode="numeric"
            pattern="[0-9]{1,7}|[1-9][0-9]{0,2}([ ,][0-9]{3}){1,2}"
          />
          <Field label="Owner" value={form.owner} onChange={set("owner")} maxLength={120} />
          <Field label="Phone" value={form.phone} onChange={set("phone")} maxLength={40} />
        </Grid>
        {add.error && !known && (
          <Notice role="alert">
            <p>{add.error.message}</p>
          </Notice>
        )}
        <Button type="submit" $main isDisabled={add.isPending}>
          Add and start a quote
        </Button>
      </Form>
    </Dialog>
  );
}
