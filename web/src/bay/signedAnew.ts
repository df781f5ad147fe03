import { api, Refused, setToken } from "../api/client";

/** A card opened with no connection has no token of the session yet: it is fetched when the first act is refused. */
export async function signedAnew<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (error) {
    if (!(error instanceof Refused) || error.status !== 403) throw error;
    setToken((await api.session()).csrf);
    return ask();
  }
}
