import { expect, test } from "vitest";
import type { Offer } from "../api/client";
import { carrierOf, unreachable, waiting } from "./words";

const offer = (id: string, ...states: Offer["state"][]) =>
  ({ id, scopes: states.map((state) => ({ state })) }) as unknown as Offer;

test("an offer waits as long as one of its scopes does", () => {
  const offers = [offer("new", "superseded", "expired"), offer("half", "declined", "sent"), offer("old", "sent")];
  expect(waiting(offers)?.id).toBe("half");
  expect(waiting([offer("done", "authorized", "superseded")])).toBeUndefined();
});

test("mail goes by the shop's own mail server, the rest by the demo's stand-in or by nobody", () => {
  expect(carrierOf("mail", { stand_ins: true, mail_server: true })).toBe("mail-server");
  expect(carrierOf("text", { stand_ins: true, mail_server: true })).toBe("simulated");
  expect(carrierOf("mail", { stand_ins: false, mail_server: false })).toBe("nobody");
});

test("a link that opens here alone is said to, in a shop of somebody's own", () => {
  expect(unreachable({ links_reach: false, stand_ins: false })).toContain("--host");
  expect(unreachable({ links_reach: true, stand_ins: false })).toBeNull();
  expect(unreachable({ links_reach: false, stand_ins: true })).toBeNull();
});
