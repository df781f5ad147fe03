import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import { api } from "../api/client";
import { CoverPage } from "../session/CoverPage";
import { Field } from "../shared/fields/Field";
import { Button, Notice, Small } from "../shared/parts";
import { MAY } from "./roles";

/** Somebody with a link: who invites them, a name and a password, and in. */
export function Join({ token }: { token: string }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const found = useQuery({ queryKey: ["invitation", token], queryFn: () => api.invitation(token), retry: false });
  const join = useMutation({
    mutationFn: async () => {
      const made = await api.join({ token, name, password });
      await api.signIn(made.email, password);
    },
    onSuccess: () => {
      window.history.replaceState(null, "", "/");
      return queries.invalidateQueries({ queryKey: ["session"] });
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    join.mutate();
  };

  if (found.isPending) return <CoverPage title="Nimble Ledger" line="Looking at your link…" children={null} />;
  if (found.error)
    return (
      <CoverPage title="Nimble Ledger" line="Plug and coil quotes, hour by hour and to the cent">
        <Notice role="alert" style={{ margin: "18px 0" }}>
          <p>{found.error.message}</p>
        </Notice>
        <Button onPress={() => window.location.assign("/")}>To the sign-in</Button>
      </CoverPage>
    );
  return (
    <CoverPage title={found.data.shop} line={`invites you as ${found.data.role}: ${MAY[found.data.role]}`}>
      <Form onSubmit={submit}>
        <Field label="E-mail" type="email" value={found.data.email} isReadOnly autoComplete="username" />
        <Field label="Your name" value={name} onChange={setName} isRequired maxLength={120} autoFocus />
        <Field
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          isRequired
          autoComplete="new-password"
          help="At least 10 characters."
          problem={join.error?.message}
        />
        <Button type="submit" $main isPending={join.isPending}>
          Join
        </Button>
        <Small>The link works once.</Small>
      </Form>
    </CoverPage>
  );
}
