import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type QuotePage } from "../../api/client";
import { Dialog } from "../../shared/Dialog";
import { Field } from "../../shared/fields/Field";
import { Button, Notice } from "../../shared/parts";

const Grid = styled.div`
  display: grid;
  gap: 12px;
  margin-bottom: 16px;
`;

/** How the customer is called and reached; kept with the customer, on this and every other quote. */
export function CustomerDialog({
  page,
  customer,
  onClose,
}: {
  page: QuotePage;
  customer: string;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const { vehicle, quote } = page;
  const [form, setForm] = useState({
    name: vehicle.customer ?? "",
    phone: vehicle.phone ?? "",
    email: vehicle.email ?? "",
  });
  const set = (key: keyof typeof form) => (value: string) => setForm({ ...form, [key]: value });
  const keep = useMutation({
    mutationFn: () =>
      api.renameCustomer(customer, { name: form.name, phone: form.phone || null, email: form.email || null }),
    onSuccess: (stored) => {
      queries.setQueryData<QuotePage>(
        ["quote", quote.id],
        (now) =>
          now && {
            ...now,
            vehicle: { ...now.vehicle, customer: stored.name, phone: stored.phone, email: stored.email },
          },
      );
      void queries.invalidateQueries({ queryKey: ["quotes"] });
      void queries.invalidateQueries({ queryKey: ["vehicles"] });
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate();
  };
  return (
    <Dialog title="Customer" onClose={onClose}>
      <Form onSubmit={submit}>
        <Grid>
          <Field label="Name" value={form.name} onChange={set("name")} isRequired maxLength={120} autoFocus />
          <Field label="Phone" value={form.phone} onChange={set("phone")} maxLength={40} />
          <Field label="E-mail" type="email" value={form.email} onChange={set("email")} maxLength={120} />
        </Grid>
        {keep.error && (
          <Notice role="alert">
            <p>{keep.error.message}</p>
          </Notice>
        )}
        <Button type="submit" $main isPending={keep.isPending}>
          Keep
        </Button>
      </Form>
    </Dialog>
  );
}
