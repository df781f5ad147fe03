import { useQueryClient } from "@tanstack/react-query";
import { Form } from "react-aria-components";
import { api } from "../api/client";
import { Button, Notice } from "../shared/parts";
import { CoverPage } from "./CoverPage";
import { SignInFields } from "./SignInFields";
import { useSignIn } from "./useSignIn";

export function SignIn() {
  const queries = useQueryClient();
  const form = useSignIn(async (email, password) => {
    await api.signIn(email, password);
    await queries.invalidateQueries({ queryKey: ["session"] });
  });

  return (
    <CoverPage title="Nimble Ledger" line="Plug and coil quotes, hour by hour and to the cent">
      <Form onSubmit={form.submit}>
        <SignInFields form={form} autoFocus />
        {form.problem && (
          <Notice role="alert">
            <p>{form.problem}</p>
          </Notice>
        )}
        <Button type="submit" $main isPending={form.busy}>
          {form.busy ? "Signing in…" : "Sign in"}
        </Button>
      </Form>
    </CoverPage>
  );
}
