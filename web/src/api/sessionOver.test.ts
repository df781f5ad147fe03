import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { askToSignInAgain, mended } from "./sessionOver";

const refused = (status: number, code: string) => new Response(JSON.stringify({ error: { code } }), { status });
const URL_OF = (path: string) => `http://shop.example${path}`;

describe("a request whose session is over", () => {
  beforeEach(() => vi.stubGlobal("window", { location: { pathname: "/quotes/1" } }));
  afterEach(() => {
    askToSignInAgain(null);
    vi.unstubAllGlobals();
  });
  const nobody = () => Promise.resolve(false);

  it("is sent once more when somebody has signed in again", async () => {
    const ask = vi.fn(() => Promise.resolve());
    askToSignInAgain(ask);
    expect(await mended(URL_OF("/api/quotes/1"), refused(401, "signed_out"), nobody)).toBe(true);
    expect(ask).toHaveBeenCalledOnce();
  });

  it("is sent with a fresh token where only that was lost", async () => {
    const ask = vi.fn(() => Promise.resolve());
    askToSignInAgain(ask);
    expect(await mended(URL_OF("/api/quotes/1"), refused(403, "csrf"), () => Promise.resolve(true))).toBe(true);
    expect(ask).not.toHaveBeenCalled();
  });

  it("is left alone where it was refused for something else, is the sign-in itself, or is a card's", async () => {
    askToSignInAgain(() => Promise.resolve());
    expect(await mended(URL_OF("/api/house"), refused(403, "forbidden"), nobody)).toBe(false);
    expect(await mended(URL_OF("/api/account/login"), refused(401, "signed_out"), nobody)).toBe(false);
    vi.stubGlobal("window", { location: { pathname: "/bay/5a35f8e7-b2c0-46d9-9ee8-7a596178db88" } });
    expect(await mended(URL_OF("/api/jobs/1/marks"), refused(401, "signed_out"), nobody)).toBe(false);
  });
});
