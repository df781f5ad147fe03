import { useRef, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import type { Offer, OfferAnswer } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { MoneyBox } from "../shared/fields/MoneyBox";
import { Button, Small } from "../shared/parts";

type Scope = Offer["scopes"][number];

const Words = styled.blockquote`
  margin: 8px 0 14px;
  padding: 12px 16px;
  border-left: 4px solid var(--mark);
  background: var(--sheet);
  font-size: 17px;
  line-height: 1.5;
  max-width: 62ch;
`;
const Fields = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px 18px;
  align-items: end;
  margin: 4px 0 12px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const WAYS = [
  { id: "phone", text: "by phone" },
  { id: "in-person", text: "in person" },
  { id: "paper", text: "signed on paper" },
];

interface Props {
  offer: Offer;
  scope: Scope;
  isPending: boolean;
  onAnswer: (answer: OfferAnswer) => void;
}

/** The words to read out, and the yes or no that is said to them. */
export function Answering({ offer, scope, isPending, onAnswer }: Props) {
  const { format } = useSession();
  const [taking, setTaking] = useState<"yes" | "no" | null>(null);
  const [name, setName] = useState(offer.recipient);
  const [how, setHow] = useState<OfferAnswer["how"]>(offer.channel === "paper" ? "paper" : "phone");
  const [limit, setLimit] = useState<number | null>(scope.limit_cents);
  const [reason, setReason] = useState("");
  const form = useRef<HTMLFormElement>(null);
  // Sealed by its own press alone: Enter in a field, or a stray one after the page opened, binds nobody.
  const seal = () => {
    if (!taking || !form.current?.reportValidity()) return;
    onAnswer({
      position: scope.position,
      answer: taking,
      how,
      name,
      limit_cents: taking === "yes" ? limit : null,
      reason,
    });
  };

  return (
    <>
      <Words>
        {offer.greeting} {scope.spoken.join(" ")}
      </Words>
      {taking === null ? (
        <p style={{ display: "flex", gap: 10, flexWrap: "wrap", alignItems: "center" }}>
          <Button $main onPress={() => setTaking("yes")}>
            Yes, up to {format.moneyWithSign(scope.limit_cents)}
          </Button>
          <Button onPress={() => setTaking("no")}>No</Button>
        </p>
      ) : (
        <Form ref={form} onSubmit={(event) => event.preventDefault()}>
          <Fields>
            <Field label="Who says so" value={name} onChange={setName} isRequired maxLength={80} autoFocus />
            <Choice label="How" value={how} options={WAYS} onPick={(id) => setHow(id as OfferAnswer["how"])} />
            {taking === "yes" ? (
              <MoneyBox label="Not above" cents={limit} onCents={setLimit} isRequired />
            ) : (
              <Field label="Why not, if they say" value={reason} onChange={setReason} maxLength={500} />
            )}
          </Fields>
          <p style={{ display: "flex", gap: 10, flexWrap: "wrap", alignItems: "center" }}>
            <Button $main onPress={seal} isPending={isPending}>
              {taking === "yes" ? "Keep the yes" : "Keep the no"}
            </Button>
            <Button onPress={() => setTaking(null)}>Back</Button>
            {taking === "yes" && <Small>It is sealed with this revision and cannot be changed after.</Small>}
          </p>
        </Form>
      )}
    </>
  );
}
