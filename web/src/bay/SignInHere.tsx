import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { api, type Session, setToken } from "../api/client";
import { Field } from "../shared/fields/Field";
import { Button, Notice } from "../shared/parts";

interface Props {
  /** Who opened this card. */
  session: Session;
  onSignedIn: () => void;
}

/** The session ended while the card was open: signed in again where it stands, nothing that was marked is lost. */
export function SignInHere({ session, onSignedIn }: Props) {
  const [email, setEmail] = useState(session.account?.email ?? "");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      setToken((await api.session()).csrf);
      await api.signIn(email, password);
      const fresh = await api.session();
      setToken(fresh.csrf);
      if (fresh.shop?.name !== session.shop?.name) throw new Error("That account belongs to another shop.");
      onSignedIn();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : "Signing in failed. Try again.");
      setBusy(false);
    }
  };

  return (
    <Notice role="region" aria-label="Sign in again" className="wide">
      <p>You were signed out. Everything marked here is kept on this device; sign in, and it is handed in.</p>
      <Form onSubmit={submit}>
        <Field label="E-mail" type="email" value={email} onChange={setEmail} isRequired autoComplete="username" />
        <Field
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          isRequired
          autoComplete="current-password"
        />
        {problem && <p role="alert">{problem}</p>}
        <Button type="submit" $main isPending={busy}>
          Sign in and hand in
        </Button>
      </Form>
    </Notice>
  );
}
