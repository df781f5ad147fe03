import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type Person } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Button, Heading, Notice, Small } from "../shared/parts";
import { InviteDialog } from "./InviteDialog";
import { ROLES } from "./roles";

const Rows = styled.ul`
  list-style: none;
  margin: 8px 0 26px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 170px 160px;
    gap: 8px 18px;
    align-items: center;
    min-height: 48px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }
  li[data-ended] .who {
    color: var(--second);
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--second);
    overflow-wrap: anywhere;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;

type Change = { id: string; role?: Person["role"]; access?: boolean };

/** Who works here and in what role. The owner invites, changes roles and ends access. */
export function People() {
  const queries = useQueryClient();
  const { format } = useSession();
  const [inviting, setInviting] = useState(false);
  const people = useQuery({ queryKey: ["people"], queryFn: api.people });
  const fresh = { onSuccess: (page: Awaited<ReturnType<typeof api.people>>) => queries.setQueryData(["people"], page) };
  const change = useMutation({ mutationFn: ({ id, ...rest }: Change) => api.changePerson(id, rest), ...fresh });
  const withdraw = useMutation({ mutationFn: (id: string) => api.withdrawInvitation(id), ...fresh });
  const busy = change.isPending || withdraw.isPending;
  const problem = people.error ?? change.error ?? withdraw.error;

  return (
    <section aria-label="People" aria-busy={people.isPending || busy}>
      <Heading style={{ marginTop: 18, alignItems: "center" }}>
        <span>People</span>
        <Button onPress={() => setInviting(true)}>Invite somebody</Button>
      </Heading>
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
      <Rows>
        {people.data?.people.map((person) => (
          <li key={person.id} data-ended={person.access ? undefined : ""}>
            <span className="who">
              {person.name}
              {person.self && " (you)"}
              <small>
                {person.email}
                {!person.access && " · access ended"}
              </small>
            </span>
            <Choice
              bare
              label={`Role of ${person.name}`}
              value={person.role}
              options={ROLES}
              isDisabled={busy || !person.access}
              onPick={(role) => role !== person.role && change.mutate({ id: person.id, role: role as Person["role"] })}
            />
            <span>
              <Button
                isDisabled={person.self}
                isPending={busy}
                onPress={() => change.mutate({ id: person.id, access: !person.access })}
              >
                {person.access ? "End access" : "Give access again"}
              </Button>
            </span>
          </li>
        ))}
        {people.data?.invitations.map((row) => (
          <li key={row.id}>
            <span className="who">
              {row.email}
              <small>invited, the link holds until {format.when(row.expires_at)}</small>
            </span>
            <Small>{ROLES.find((role) => role.id === row.role)?.text}</Small>
            <span>
              <Button isPending={busy} onPress={() => withdraw.mutate(row.id)}>
                Withdraw
              </Button>
            </span>
          </li>
        ))}
      </Rows>
      {inviting && <InviteDialog onClose={() => setInviting(false)} />}
    </section>
  );
}
