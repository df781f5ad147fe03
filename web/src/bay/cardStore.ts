import { type DBSchema, openDB } from "idb";
import type { Session } from "../api/client";
import type { Kept } from "./offlineQueue";

/** A job's card on this device, with who works on it: enough to open it with no connection. */
interface OnDevice {
  job: string;
  kept: Kept;
  session: Session;
  /** Pictures that are not handed in yet, by their id. */
  pictures: Record<string, string>;
}

interface Store extends DBSchema {
  cards: { key: string; value: OnDevice };
}

const open = () =>
  openDB<Store>("nimble-bay", 1, { upgrade: (db) => void db.createObjectStore("cards", { keyPath: "job" }) });

/** What the device keeps of jobs: the cards opened here and not handed over, nothing else. */
export const device = {
  card: async (job: string): Promise<OnDevice | undefined> => (await open()).get("cards", job),
  keep: async (card: OnDevice): Promise<void> => void (await (await open()).put("cards", card)),
  forget: async (job: string): Promise<void> => (await open()).delete("cards", job),
  /** Signing out leaves nothing behind. */
  wipe: async (): Promise<void> => (await open()).clear("cards"),
  /** Jobs with marks or pictures that are not handed in. */
  waiting: async (): Promise<OnDevice[]> =>
    (await (await open()).getAll("cards")).filter(
      (card) => card.kept.queue.length > 0 || Object.keys(card.pictures).length > 0,
    ),
};

/** A name for this device that says nothing about anybody. */
export function deviceName(): string {
  const known = localStorage.getItem("nimble-device");
  if (known) return known;
  const made = `device ${crypto.randomUUID().slice(0, 8)}`;
  localStorage.setItem("nimble-device", made);
  return made;
}
