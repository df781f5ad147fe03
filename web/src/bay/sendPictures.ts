import { api, Refused } from "../api/client";
import { signedAnew } from "./signedAnew";

/** Answers after which a picture is of no use any more: it is kept, it is none, or there is no such job. */
const FINAL = [404, 409, 422];

/**
 * Pictures go before the marks that speak of them. One leaves this device only when the server has it or can never
 * have it: a session that ended, a crowd or a server that is away are no reason.
 * @param pictures by their id; those that are done with are taken out
 * @param onDone told after each of them
 */
export async function sendPictures(
  job: string,
  pictures: Record<string, string>,
  onDone: () => void,
  send: (job: string, id: string, data: string) => Promise<unknown> = api.keepPicture,
): Promise<void> {
  for (const [id, data] of Object.entries(pictures)) {
    try {
      await signedAnew(() => send(job, id, data));
    } catch (error) {
      if (!(error instanceof Refused) || !FINAL.includes(error.status)) throw error;
    }
    delete pictures[id];
    onDone();
  }
}
