import type { Offer } from "../api/client";

type Channel = Offer["channel"];
type State = Offer["state"];
type Answer = NonNullable<Offer["scopes"][number]["answer"]>;

/** How an offer went out, as it is told. */
export const WENT: Record<Channel, string> = {
  text: "sent by text",
  mail: "sent by mail",
  phone: "read out on the phone",
  paper: "given on paper",
};

/** Where a scope stands, in words. */
export const STANDS: Record<State, string> = {
  draft: "not offered yet",
  sent: "waits for an answer",
  authorized: "agreed",
  declined: "declined",
  expired: "lapsed",
  superseded: "no longer offered",
};

/** How an answer reached the shop. */
export const HOW: Record<Answer["how"], string> = {
  "in-person": "in person",
  phone: "by phone",
  link: "on the customer's page",
  paper: "signed on paper",
};

/** Where a message is on its way. */
export const CARRIED: Record<NonNullable<Offer["message"]>["state"], string> = {
  queued: "waits to be sent",
  sending: "is being sent",
  delivered: "delivered",
  failed: "did not get through",
  bounced: "came back",
};

/** The newest offer still waiting for an answer, if there is one. */
export const waiting = (offers: Offer[]): Offer | undefined =>
  offers.find((offer) => offer.scopes.some((scope) => scope.state === "sent"));
