import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import type { NewOffer, YesPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { MoneyBox } from "../shared/fields/MoneyBox";
import { faultsByPath } from "../shared/faults";
import { Button, Heading, Notice, Small } from "../shared/parts";
import { CARRIER, carrierOf, unreachable } from "./words";

type Channel = NewOffer["channel"];

const Lines = styled.table`
  margin: 6px 0 16px;
  th,
  td {
    padding: 9px 12px 9px 0;
    border-bottom: 1px solid var(--rule);
    text-align: left;
    vertical-align: middle;
  }
  thead th {
    font-size: 13px;
    font-weight: 400;
    color: var(--second);
    padding: 4px 12px 4px 0;
    border-bottom: 1px solid var(--strong);
  }
  .figure {
    text-align: right;
    font-size: 17px;
    font-weight: 650;
    white-space: nowrap;
  }
  td.limit {
    width: 170px;
    padding-right: 0;
  }
`;
const To = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px 18px;
  align-items: end;
  margin-bottom: 14px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const CHANNELS: { id: Channel; text: string }[] = [
  { id: "text", text: "Text message" },
  { id: "mail", text: "Mail" },
  { id: "paper", text: "On paper" },
];

interface Props {
  page: YesPage;
  proposal: NonNullable<YesPage["proposal"]>;
  /** Who still waits with an older offer: this one takes its place. */
  replaces?: string;
  isPending: boolean;
  problem: Error | null;
  onOffer: (offer: NewOffer) => void;
}

/** What exactly is offered, to whom, up to what amount, and how it gets there. */
export function Offering({ page, proposal, replaces, isPending, problem, onOffer }: Props) {
  const { format, shop } = useSession();
  const { vehicle } = page;
  // Where everything that was agreed to was taken back this is an offer like the first.
  const job = page.job?.called_off && !page.job.begun ? null : page.job;
  const [channel, setChannel] = useState<Channel>(vehicle.phone || !vehicle.email ? "text" : "mail");
  const [recipient, setRecipient] = useState(vehicle.customer ?? "");
  const [address, setAddress] = useState<Partial<Record<Channel, string>>>({
    text: vehicle.phone ?? "",
    mail: vehicle.email ?? "",
  });
  const [limits, setLimits] = useState<Record<number, number | null>>({});
  const faults = faultsByPath(problem);
  const incomplete = proposal.scopes.some((scope) => scope.incomplete);
  const carried = channel === "text" || channel === "mail";
  const offer = (by: Channel) =>
    onOffer({
      revision: proposal.revision,
      channel: by,
      recipient,
      address: by === "text" || by === "mail" ? (address[by] ?? "") : "",
      limits: proposal.scopes.map((scope) => ({
        position: scope.position,
        limit_cents: limits[scope.position] ?? scope.limit_cents,
      })),
      supersede: Boolean(replaces),
    });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    offer(channel);
  };

  return (
    <Form onSubmit={submit}>
      <Heading style={{ marginTop: 18 }}>
        <span>{job ? "A supplement to what was agreed" : "What is offered"}</span>
        <Small>revision {proposal.revision}</Small>
      </Heading>
      <Lines>
        <thead>
          <tr>
            <th scope="col">Scope</th>
            <th scope="col" style={{ textAlign: "right" }}>
              Total
            </th>
            {job && (
              <th scope="col" style={{ textAlign: "right" }}>
                New
              </th>
            )}
            <th scope="col">Not above, without a call</th>
          </tr>
        </thead>
        <tbody>
          {proposal.scopes.map((scope) => (
            <tr key={scope.position}>
              <td>
                {scope.title}
                {scope.incomplete && <Small> · a part has no price yet</Small>}
              </td>
              <td className="figure">{format.moneyWithSign(scope.total_cents)}</td>
              {job && <td className="figure">{format.signed(scope.total_cents - job.agreed_cents)}</td>}
              <td className="limit">
                <MoneyBox
                  bare
                  label={`Limit of ${scope.title}`}
                  cents={limits[scope.position] ?? scope.limit_cents}
                  onCents={(cents) => setLimits((now) => ({ ...now, [scope.position]: cents }))}
                  problem={faults[`/limits/${scope.position}/limit_cents`]}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Lines>
      <To>
        <Field label="To" value={recipient} onChange={setRecipient} isRequired maxLength={120} />
        <Choice label="How" value={channel} options={CHANNELS} onPick={(id) => setChannel(id as Channel)} />
        {carried ? (
          <Field
            key={channel}
            label={channel === "text" ? "Phone" : "E-mail"}
            type={channel === "mail" ? "email" : "tel"}
            value={address[channel] ?? ""}
            onChange={(value) => setAddress((now) => ({ ...now, [channel]: value }))}
            isRequired
            maxLength={120}
          />
        ) : (
          <Small style={{ alignSelf: "center" }}>The page to sign carries a code to scan.</Small>
        )}
      </To>
      {carried && (
        <p style={{ marginBottom: 12 }}>
          <Small>{CARRIER[carrierOf(channel, shop)]}</Small>
          {unreachable(shop) && <Small as="p">{unreachable(shop)}</Small>}
        </p>
      )}
      {page.wishes && <p style={{ marginBottom: 12 }}>Their wish: {page.wishes}</p>}
      {problem && Object.keys(faults).every((path) => !path.startsWith("/limits/")) && (
        <Notice role="alert" style={{ marginBottom: 12 }}>
          <p>{problem.message}</p>
        </Notice>
      )}
      <p style={{ display: "flex", gap: 12, alignItems: "center", flexWrap: "wrap" }}>
        <Button $main type="submit" isDisabled={incomplete} isPending={isPending}>
          {channel === "paper" ? "Make the page" : carrierOf(channel, shop) === "nobody" ? "Make the link" : "Send"}
        </Button>
        <Button onPress={() => offer("phone")} isDisabled={incomplete || recipient.trim() === ""} isPending={isPending}>
          Read out
        </Button>
        {incomplete && <Small>Set the missing price under Prices and save again: this total is not the whole.</Small>}
        {replaces && <Small>This takes the place of what {replaces} has now.</Small>}
      </p>
    </Form>
  );
}
