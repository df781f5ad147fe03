import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type Session, setToken } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Asked, Button, Small } from "../shared/parts";
import { SignInFields } from "./SignInFields";
import { useSignIn } from "./useSignIn";

const Fields = styled(Form)`
  display: grid;
  gap: 12px;
  margin-top: 12px;
`;

interface Props {
  /** Who was signed in. */
  session: Session;
  onSignedIn: (fresh: Session) => void;
  onLeave: () => void;
}

/** The session is over while somebody works: they sign in where they stand, and what they did goes on. */
export function SignInAgain({ session, onSignedIn, onLeave }: Props) {
  const form = useSignIn(async (email, password) => {
    setToken((await api.session()).csrf);
    await api.signIn(email, password);
    const fresh = await api.session();
    setToken(fresh.csrf);
    if (fresh.shop?.name !== session.shop?.name) throw new Error("That account belongs to another shop.");
    onSignedIn(fresh);
  }, session.account?.email);
  return (
    <Dialog title="Sign in again" onClose={onLeave} stays>
      <p>
        <Small>Your session is over. What you typed is still here, and goes on when you have signed in.</Small>
      </p>
      <Fields onSubmit={form.submit}>
        <SignInFields form={form} />
        {form.problem && <p role="alert">{form.problem}</p>}
        <p style={{ display: "flex", gap: 16, alignItems: "center" }}>
          <Button type="submit" $main isPending={form.busy}>
            Sign in
          </Button>
          <Small>
            <Asked onPress={onLeave}>Leave without it</Asked>
          </Small>
        </p>
      </Fields>
    </Dialog>
  );
}
