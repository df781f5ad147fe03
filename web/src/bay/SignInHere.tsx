import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type Session, setToken } from "../api/client";
import { SignInFields } from "../session/SignInFields";
import { useSignIn } from "../session/useSignIn";
import { Button, Notice } from "../shared/parts";

const Fields = styled(Form)`
  display: grid;
  gap: 12px;
  max-width: 420px;
  margin-top: 12px;
  button {
    justify-self: start;
  }
`;

interface Props {
  /** Who opened this card. */
  session: Session;
  onSignedIn: () => void;
}

/** The session ended while the card was open: signed in again where it stands, nothing that was marked is lost. */
export function SignInHere({ session, onSignedIn }: Props) {
  const form = useSignIn(async (email, password) => {
    setToken((await api.session()).csrf);
    await api.signIn(email, password);
    const fresh = await api.session();
    setToken(fresh.csrf);
    if (fresh.shop?.name !== session.shop?.name) throw new Error("That account belongs to another shop.");
    onSignedIn();
  }, session.account?.email);

  return (
    <Notice role="region" aria-label="Sign in again" className="wide">
      <p>You were signed out. Everything marked here is kept on this device; sign in, and it is handed in.</p>
      <Fields onSubmit={form.submit}>
        <SignInFields form={form} />
        {form.problem && <p role="alert">{form.problem}</p>}
        <Button type="submit" $main isPending={form.busy}>
          Sign in and hand in
        </Button>
      </Fields>
    </Notice>
  );
}
