import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { Button, Notice, Small } from "../shared/parts";

const Grid = styled.div`
  display: grid;
  gap: 12px;
  margin: 12px 0 14px;
`;
const Part = styled.section`
  border-top: 1px solid var(--rule);
  padding-top: 14px;
  margin-top: 18px;
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: center;
`;

/** One's own account: the password, and where one is signed in. */
export function AccountDialog({ onClose }: { onClose: () => void }) {
  const { account, signOut } = useSession();
  const [form, setForm] = useState({ password: "", fresh: "" });
  const set = (key: keyof typeof form) => (value: string) => setForm({ ...form, [key]: value });
  const change = useMutation({
    mutationFn: () => api.changePassword(form.password, form.fresh),
    onSuccess: () => setForm({ password: "", fresh: "" }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate();
  };
  return (
    <Dialog title={account.name} onClose={onClose}>
      <Small>
        {account.email}, {account.role}
      </Small>
      <Form onSubmit={submit}>
        <Grid>
          <Field
            label="Password now"
            type="password"
            value={form.password}
            onChange={set("password")}
            isRequired
            autoComplete="current-password"
          />
          <Field
            label="New password"
            type="password"
            value={form.fresh}
            onChange={set("fresh")}
            isRequired
            minLength={10}
            autoComplete="new-password"
            help="At least 10 characters. Everywhere else you are signed out."
          />
        </Grid>
        {change.error && (
          <Notice role="alert">
            <p>{change.error.message}</p>
          </Notice>
        )}
        {change.isSuccess && (
          <Notice role="status">
            <p>The password is changed. Other places where you were signed in are signed out.</p>
          </Notice>
        )}
        <p style={{ marginTop: 12 }}>
          <Button type="submit" $main isPending={change.isPending}>
            Change the password
          </Button>
        </p>
      </Form>
      <Part>
        <Button onPress={() => signOut(true)}>Sign out everywhere</Button>
        <Small>Ends every session of this account, on every device.</Small>
      </Part>
    </Dialog>
  );
}
