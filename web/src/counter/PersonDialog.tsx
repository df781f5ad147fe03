import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-aria-components";
import { api, type CustomerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { Button, Heading, Mono, Notice, Small, Unseen } from "../shared/parts";
import { NeedRows } from "./rows";

interface Props {
  id: string;
  onClose: () => void;
  onStart: (vehicle: string) => void;
}

/** One person: how they are reached, what they wish, their cars, and entries that may be the same person. */
export function PersonDialog({ id, onClose, onStart }: Props) {
  const page = useQuery({ queryKey: ["customer", id], queryFn: () => api.customer(id) });
  return (
    <Dialog title={page.data?.customer.name ?? "Customer"} onClose={onClose} wide>
      {page.isPending && <Small>Looking…</Small>}
      {page.error && (
        <Notice role="alert">
          <p>{page.error.message}</p>
        </Notice>
      )}
      {page.data && <Person key={id} page={page.data} onClose={onClose} onStart={onStart} />}
    </Dialog>
  );
}

function Person({ page, onClose, onStart }: { page: CustomerPage } & Omit<Props, "id">) {
  const queries = useQueryClient();
  const { account } = useSession();
  const writes = account.role !== "technician";
  const { customer, vehicles, doubles } = page;
  const [form, setForm] = useState({
    name: customer.name,
    phone: customer.phone ?? "",
    email: customer.email ?? "",
    wishes: customer.wishes ?? "",
  });
  const set = (key: keyof typeof form) => (value: string) => setForm({ ...form, [key]: value });
  const changed = () =>
    ["customer", "counter", "find", "yes"].forEach((key) => void queries.invalidateQueries({ queryKey: [key] }));
  const keep = useMutation({
    mutationFn: () => api.renameCustomer(customer.id, form),
    onSuccess: () => {
      changed();
      onClose();
    },
  });
  const merge = useMutation({
    mutationFn: (double: string) => api.mergeCustomer(customer.id, double),
    onSuccess: changed,
  });
  const problem = keep.error ?? merge.error;

  return (
    <>
      <NeedRows>
        {vehicles.map((vehicle) => (
          <li key={vehicle.id}>
            <Mono>{vehicle.plate}</Mono>
            <span>
              {vehicle.description}
              <small>{vehicle.engine_code}</small>
            </span>
            {writes && (
              <Button onPress={() => onStart(vehicle.id)}>
                Quote <Unseen>for {vehicle.plate}</Unseen>
              </Button>
            )}
          </li>
        ))}
      </NeedRows>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <div style={{ display: "grid", gap: 12, gridTemplateColumns: "1fr 1fr", marginBottom: 14 }}>
          <Field
            label="Name"
            value={form.name}
            onChange={set("name")}
            isRequired
            maxLength={120}
            isDisabled={!writes}
          />
          <Field label="Phone" value={form.phone} onChange={set("phone")} maxLength={40} isDisabled={!writes} />
          <Field
            label="E-mail"
            type="email"
            value={form.email}
            onChange={set("email")}
            maxLength={120}
            isDisabled={!writes}
          />
          <Field
            label="Wishes"
            value={form.wishes}
            onChange={set("wishes")}
            maxLength={200}
            placeholder="call before noon"
            isDisabled={!writes}
          />
        </div>
        {problem && (
          <Notice role="alert">
            <p>{problem.message}</p>
          </Notice>
        )}
        {writes && (
          <Button type="submit" $main isPending={keep.isPending}>
            Keep
          </Button>
        )}
      </Form>
      {writes && doubles.length > 0 && (
        <section aria-label="Perhaps the same person" style={{ marginTop: 22 }}>
          <Heading>
            <span>Perhaps the same person</span>
          </Heading>
          <NeedRows>
            {doubles.map((other) => (
              <li key={other.id} style={{ gridTemplateColumns: "minmax(0, 1fr) auto" }}>
                <span>
                  {other.name}
                  <small>{[other.phone, other.email].filter(Boolean).join(" · ")}</small>
                </span>
                <Button onPress={() => merge.mutate(other.id)} isPending={merge.isPending}>
                  Make one <Unseen>of {other.name} and this entry</Unseen>
                </Button>
              </li>
            ))}
          </NeedRows>
        </section>
      )}
    </>
  );
}
