import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import styled from "styled-components";
import { api, type Person, Refused } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { Button, Mono, Notice, Small } from "../shared/parts";
import { MAY, ROLES } from "./roles";

const Grid = styled.div`
  display: grid;
  gap: 14px;
  margin-bottom: 16px;
`;
const Link = styled(Mono)`
  display: block;
  padding: 10px 12px;
  margin: 10px 0;
  border: 1.2px solid var(--strong);
  border-radius: 4px;
  overflow-wrap: anywhere;
  user-select: all;
`;

/** A link for one person, shown once: whoever has it sets a password and works in the role it is for. */
export function InviteDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { format } = useSession();
  const [email, setEmail] = useState("");
  const [role, setRole] = useState<Person["role"]>("advisor");
  const [copied, setCopied] = useState(false);
  const invite = useMutation({
    mutationFn: () => api.invite({ email, role }),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["people"] }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    invite.mutate();
  };
  const known = invite.error instanceof Refused ? invite.error.message : undefined;
  const link = invite.data && `${window.location.origin}${invite.data.link}`;
  const copy = () => navigator.clipboard.writeText(link ?? "").then(() => setCopied(true));

  if (invite.data)
    return (
      <Dialog title={`A link for ${invite.data.email}`} onClose={onClose}>
        <p>
          Send it to them yourself. It works once, until {format.when(invite.data.expires_at)}, and is not shown again.
        </p>
        <Link data-testid="link">{link}</Link>
        <p style={{ display: "flex", gap: 10, alignItems: "center" }}>
          <Button $main onPress={() => void copy()}>
            Copy the link
          </Button>
          <Button onPress={onClose}>Done</Button>
          <Small role="status">{copied && "Copied."}</Small>
        </p>
      </Dialog>
    );
  return (
    <Dialog title="Invite somebody" onClose={onClose}>
      <form onSubmit={submit}>
        <Grid>
          <Field
            label="E-mail"
            type="email"
            value={email}
            onChange={setEmail}
            isRequired
            maxLength={120}
            autoFocus
            problem={known}
          />
          <Choice
            label="Works as"
            value={role}
            options={ROLES}
            onPick={(id) => setRole(id as Person["role"])}
            help={MAY[role]}
          />
        </Grid>
        {invite.error && !known && (
          <Notice role="alert">
            <p>{invite.error.message}</p>
          </Notice>
        )}
        <Button $main type="submit" isPending={invite.isPending}>
          Make the link
        </Button>
      </form>
    </Dialog>
  );
}
