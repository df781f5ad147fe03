import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { api } from "../api/client";
import { Field } from "../shared/fields/Field";
import { Button, Notice } from "../shared/parts";
import { CoverPage } from "./CoverPage";

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
    <CoverPage title="Nimble Ledger" line="Plug and coil quotes, hour by hour and to the cent">
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
        <Button type="submit" $main isPending={busy}>
          {busy ? "Signing in…" : "Sign in"}
        </Button>
      </Form>
    </CoverPage>
  );
}
