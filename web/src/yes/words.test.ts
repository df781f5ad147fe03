import { expect, test } from "vitest";
import type { Offer } from "../api/client";
import { waiting } from "./words";

const offer = (id: string, ...states: Offer["state"][]) =>
  ({ id, scopes: states.map((state) => ({ state })) }) as unknown as Offer;

test("an offer waits as long as one of its scopes does", () => {
  const offers = [offer("new", "superseded", "expired"), offer("half", "declined", "sent"), offer("old", "sent")];
  expect(waiting(offers)?.id).toBe("half");
  expect(waiting([offer("done", "authorized", "superseded")])).toBeUndefined();
});
