import { Away, Refused } from "../api/client";
import type { Failure } from "./workingCopy";

/**
 * What kept a request from being carried out, as a working copy takes it: the server is away, it refused, or somebody
 * else was quicker.
 * @param clash what a refusal of the last kind holds; null for any other
 */
export function failureOf<C>(error: unknown, clash: (refused: Refused) => Failure<C> | null): Failure<C> {
  if (error instanceof Away) return { kind: "away" };
  if (!(error instanceof Refused)) return { kind: "refused", message: "Storing failed." };
  if (error.status >= 500 || error.status === 429) return { kind: "away" };
  return clash(error) ?? { kind: "refused", message: error.message };
}
