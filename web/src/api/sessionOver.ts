/**
 * What a request does that finds its session over: it waits until somebody has signed in again, and is sent once more,
 * so that nothing that was typed or pressed is lost.
 */
type SignInAgain = () => Promise<void>;

let again: SignInAgain | null = null;

/** Who asks for the sign-in in place; nobody while the sign-in page itself is up. */
export function askToSignInAgain(ask: SignInAgain | null): void {
  again = ask;
}

/** Requests that say by themselves that nobody is signed in. */
const OWN = /^\/api\/(session|account\/)/;
/** A card keeps what is marked on the device, and has a sign-in of its own. */
const CARD = /^\/bay\/[0-9a-f-]{36}$/;

const codeOf = async (reply: Response): Promise<string | undefined> => {
  const body: unknown = await reply
    .clone()
    .json()
    .catch(() => null);
  return (body as { error?: { code?: string } } | null)?.error?.code;
};

/**
 * Whether a refused request is to be sent once more, now that its session is in order.
 * @param renew asks the server who is signed in, and keeps its token; whether anybody is
 */
export async function mended(url: string, reply: Response, renew: () => Promise<boolean>): Promise<boolean> {
  if (reply.status !== 401 && reply.status !== 403) return false;
  if (!again || OWN.test(new URL(url).pathname) || CARD.test(window.location.pathname)) return false;
  const code = await codeOf(reply);
  if (code === "csrf" && (await renew())) return true;
  if (code !== "signed_out" && code !== "csrf") return false;
  await again();
  return true;
}
