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

/** Who takes a message of a channel along: the shop's own mail server, a stand-in of the demo, or nobody. */
export const carrierOf = (
  channel: Channel,
  shop: { stand_ins: boolean; mail_server: boolean },
): "mail-server" | "simulated" | "nobody" => {
  if (channel === "mail" && shop.mail_server) return "mail-server";
  return shop.stand_ins ? "simulated" : "nobody";
};

/** What becomes of a message, before it is sent. */
export const CARRIER: Record<ReturnType<typeof carrierOf>, string> = {
  "mail-server": "It goes out by the shop's mail server.",
  simulated: "The carrier of the demo is simulated: nothing leaves this computer.",
  nobody: "No carrier is connected: a link is made, to be copied and sent by yourself.",
};

/** Said where a link would open on this computer alone; the demo's links go nowhere else by themselves. */
export const unreachable = (shop: { links_reach: boolean; stand_ins: boolean }): string | null =>
  shop.links_reach || shop.stand_ins
    ? null
    : "Links lead to this computer alone, no phone can open them: start the program with --host and its address.";
