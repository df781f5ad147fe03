import { useState } from "react";
import styled from "styled-components";
import type { Offer, OfferAnswer } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Asked, Button, LoneLink, Small, Strong } from "../shared/parts";
import { Answering } from "./Answering";
import { CARRIED, carrierOf, HOW, STANDS, WENT } from "./words";

type Scope = Offer["scopes"][number];

const Sheet = styled.article`
  background: var(--sheet);
  border: 1px solid var(--strong);
  padding: 14px 18px 16px;
  margin: 0 0 18px;
  &[data-sealed] {
    border: 1.4px solid var(--ink);
    border-left: 7px double var(--ink);
    background: var(--sheet);
  }
  &[data-past] {
    background: none;
    border-style: dashed;
  }
  h3 {
    font-size: 15px;
    font-weight: 650;
  }
  header {
    display: flex;
    justify-content: space-between;
    gap: 4px 16px;
    flex-wrap: wrap;
    align-items: baseline;
  }
  .scope {
    border-top: 1px solid var(--rule);
    margin-top: 10px;
    padding-top: 10px;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    align-items: baseline;
  }
  .line strong {
    font-size: 20px;
    white-space: nowrap;
  }
  .sealed {
    font-size: 17px;
    margin-top: 4px;
  }
  .sealed[data-struck] {
    color: var(--second);
    text-decoration: line-through;
  }
  .question {
    border-left: 4px solid var(--mark);
    padding: 2px 0 2px 12px;
    margin-top: 10px;
    display: flex;
    gap: 14px;
    justify-content: space-between;
    align-items: center;
  }
`;

interface Props {
  offer: Offer;
  writes: boolean;
  /** Whether a yes to it can still be struck: not once the car is handed over. */
  mayStrike: boolean;
  isPending: boolean;
  onAnswer: (answer: OfferAnswer) => void;
  onRevoke: () => void;
  onRetry: () => void;
  onSettle: (question: string) => void;
  /** Strikes the yes to a scope, with why. */
  onStrike: (position: number) => void;
}

/** One offer: what went out to whom, where each scope stands, what was said to it. What was agreed is a sealed page. */
export function OfferSheet({
  offer,
  writes,
  mayStrike,
  isPending,
  onAnswer,
  onRevoke,
  onRetry,
  onSettle,
  onStrike,
}: Props) {
  const { format, shop } = useSession();
  const open = offer.state === "sent";
  const isHandedOver = !offer.message && (offer.channel === "text" || offer.channel === "mail");
  return (
    <Sheet data-sealed={offer.state === "authorized" ? "" : undefined} data-past={isPast(offer) ? "" : undefined}>
      <header>
        <h3>
          {offer.supplement ? "Supplement, revision " : "Revision "}
          {offer.revision}, for {offer.recipient}
        </h3>
        <Small>
          {isHandedOver ? "link made" : WENT[offer.channel]} {format.when(offer.sent_at)}
          {offer.by && ` by ${offer.by}`}
          {open &&
            offer.message &&
            ` · ${offer.seen_at ? `looked at ${format.when(offer.seen_at)}` : "not looked at yet"}`}
        </Small>
      </header>
      {offer.message && (
        <p>
          <Small>
            {offer.message.channel === "text" ? "Text" : "Mail"} to {offer.message.address}:{" "}
            {offer.message.state === "delivered" && carrierOf(offer.message.channel, shop) === "mail-server"
              ? "handed to the mail server"
              : CARRIED[offer.message.state]}
            {carrierOf(offer.message.channel, shop) === "simulated" && " (simulated: nothing leaves this computer)"}
            {offer.message.problem && `. ${offer.message.problem}`}{" "}
            {writes && ["failed", "bounced"].includes(offer.message.state) && (
              <Asked onPress={onRetry}>Try once more</Asked>
            )}
          </Small>
        </p>
      )}
      {isHandedOver && open && (
        <p style={{ display: "flex", gap: 12, alignItems: "center", flexWrap: "wrap" }}>
          <Small>No carrier is connected: nothing was sent. Copy the link and send it yourself.</Small>
          {offer.link && <CopyLink link={offer.link} />}
        </p>
      )}
      {offer.scopes.map((scope) => (
        <div className="scope" key={scope.position}>
          <div className="line">
            <span>
              {scope.title}
              {scope.state !== "sent" && <Small> · {STANDS[scope.state]}</Small>}
            </span>
            <strong>{format.moneyWithSign(scope.total_cents)}</strong>
          </div>
          {offer.supplement && (
            <Small>
              {format.signed(scope.total_cents - scope.before_cents)} on the {format.money(scope.before_cents)} agreed
              before
            </Small>
          )}
          {scope.answer && <Said scope={scope} />}
          {scope.struck && (
            <p>
              <Strong>Struck</Strong>: {scope.struck.reason}
              <Small>
                {" "}
                · {format.when(scope.struck.at)}
                {scope.struck.by && `, by ${scope.struck.by}`}. Nothing is agreed by it any more.
              </Small>
            </p>
          )}
          {scope.state === "authorized" && mayStrike && (
            <Small as="p">
              <Asked onPress={() => onStrike(scope.position)}>This yes was kept by mistake</Asked>
            </Small>
          )}
          {scope.state === "sent" && writes && (
            <Answering offer={offer} scope={scope} isPending={isPending} onAnswer={onAnswer} />
          )}
        </div>
      ))}
      {offer.questions
        .filter((question) => question.open)
        .map((question) => (
          <div className="question" key={question.id}>
            <span>
              They ask: “{question.words}” <Small>{format.when(question.at)}</Small>
            </span>
            {writes && <Button onPress={() => onSettle(question.id)}>Answered</Button>}
          </div>
        ))}
      {["sent", "authorized"].includes(offer.state) && (
        <p style={{ marginTop: 10 }}>
          <Small>
            <LoneLink href={`/api/offers/${offer.id}/authorization.pdf`} target="_blank" rel="noreferrer">
              {open ? "The page to sign" : "The page as it was agreed"}
            </LoneLink>
          </Small>
        </p>
      )}
      {open && (
        <p style={{ marginTop: 4 }}>
          <Small>
            Holds until {format.when(offer.until)}.{" "}
            {offer.revoked_at ? "The link is closed." : writes && <Asked onPress={onRevoke}>Close the link</Asked>}
          </Small>
        </p>
      )}
    </Sheet>
  );
}

/** The customer's link, into the clipboard; where that is not allowed it is shown to be copied by hand. */
function CopyLink({ link }: { link: string }) {
  const [said, setSaid] = useState("");
  const copy = () =>
    navigator.clipboard.writeText(link).then(
      () => setSaid("Copied."),
      () => setSaid(link),
    );
  return (
    <>
      <Button onPress={() => void copy()}>Copy the link</Button>
      <Small role="status">{said}</Small>
    </>
  );
}

const isPast = (offer: Offer) => ["superseded", "expired", "declined"].includes(offer.state);

/** Who said what, how, when, up to what, and who took it down. */
function Said({ scope }: { scope: Scope }) {
  const { format } = useSession();
  const { answer } = scope;
  if (!answer) return null;
  return (
    <p className="sealed" data-struck={scope.struck ? "" : undefined}>
      {answer.name} said {answer.answer} {HOW[answer.how]}
      {answer.limit_cents !== null && <>, up to {format.moneyWithSign(answer.limit_cents)}</>}
      {answer.reason && <>: “{answer.reason}”</>}
      <Small>
        {" "}
        · {format.when(answer.at)}
        {answer.taken_by && `, taken by ${answer.taken_by}`}
      </Small>
    </p>
  );
}
