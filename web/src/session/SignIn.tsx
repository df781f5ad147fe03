import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api } from "../api/client";
import { Field } from "../shared/fields/Field";
import { Button, Notice, Small } from "../shared/parts";

const Page = styled.main`
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
  background-image: repeating-linear-gradient(transparent 0 33px, var(--rule) 33px 34px);
`;
const Sheet = styled.div`
  width: min(380px, 100%);
  background: var(--sheet);
  border: 1px solid var(--strong);
  border-left: 6px double var(--strong);
  padding: 30px 32px;
  h1 {
    font-size: 30px;
    font-weight: 650;
    line-height: 1.1;
  }
  form {
    display: grid;
    gap: 16px;
    margin-top: 22px;
  }
`;

export function SignIn() {
  const queries = useQueryClient();
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      await api.signIn(email, password);
      await queries.invalidateQueries({ queryKey: ["session"] });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : "Signing in failed. Try again.");
      setBusy(false);
    }
  };

  return (
    <Page>
      <Sheet>
        <h1>Nimble Ledger</h1>
        <Small>Plug and coil quotes, hour by hour and to the cent</Small>
        <Form onSubmit={submit}>
          <Field
            label="E-mail"
            type="email"
            value={email}
            onChange={setEmail}
            isRequired
            autoComplete="username"
            autoFocus
          />
          <Field
            label="Password"
            type="password"
            value={password}
            onChange={setPassword}
            isRequired
            autoComplete="current-password"
          />
          {problem && (
            <Notice role="alert">
              <p>{problem}</p>
            </Notice>
          )}
          <Button type="submit" $main isDisabled={busy}>
            {busy ? "Signing in…" : "Sign in"}
          </Button>
        </Form>
      </Sheet>
    </Page>
  );
}
