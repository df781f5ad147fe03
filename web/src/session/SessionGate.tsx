import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, lazy, type ReactNode, Suspense, useCallback, useContext, useMemo, useState } from "react";
import { I18nProvider } from "react-aria-components";
import styled from "styled-components";
import { api, Away, type Session, setToken } from "../api/client";
import { formatter, type Formatter } from "../shared/format";
import { Button, Notice } from "../shared/parts";
import { invited } from "./invited";
import { SignIn } from "./SignIn";
import { SignInAgain } from "./SignInAgain";
import { useSessionOver } from "./useSessionOver";
import { type Unsent, UnsentDialog } from "./UnsentDialog";

const FirstRun = lazy(async () => ({ default: (await import("../first/FirstRun")).FirstRun }));
const Join = lazy(async () => ({ default: (await import("../people/Join")).Join }));

interface SignedIn {
  account: NonNullable<Session["account"]>;
  shop: NonNullable<Session["shop"]>;
  format: Formatter;
  /** As the server says it, for a device that has to open a card without it. */
  session: Session;
  /** Here, or everywhere. */
  signOut: (everywhere?: boolean) => void;
}

const SessionContext = createContext<SignedIn | null>(null);

const Middle = styled.main`
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
`;

/** Who is signed in; in the bay, while the server is away, whoever opened the card that is kept here. */
async function openSession(): Promise<Session> {
  try {
    const found = await api.session();
    setToken(found.csrf);
    return found;
  } catch (error) {
    const card = error instanceof Away && IN_THE_BAY.test(window.location.pathname) && (await keptCard());
    if (card) return card.session;
    throw error;
  }
}

const IN_THE_BAY = /^\/bay\/[0-9a-f-]{36}$/;

async function keptCard() {
  const { device } = await import("../bay/cardStore");
  return device.card(window.location.pathname.split("/")[2] ?? "");
}

/** Nothing of a job stays on a device somebody signed out of. */
async function forgetDevice(): Promise<void> {
  const { device } = await import("../bay/cardStore");
  await device.wipe().catch(() => undefined);
}

/** What only this device has. */
async function unsentHere(): Promise<Unsent[]> {
  const { device } = await import("../bay/cardStore");
  const cards = await device.waiting().catch(() => []);
  return cards.map(({ job, kept, pictures }) => ({
    job,
    number: kept.card.job.number,
    title: kept.card.job.title,
    marks: kept.queue.length + Object.keys(pictures).length,
  }));
}

/** Shows the sign-in until somebody is signed in; then hands out the shop, its units and formats. */
export function SessionGate({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const session = useQuery({
    queryKey: ["session"],
    queryFn: openSession,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const { account, shop } = session.data ?? {};
  const [unsent, setUnsent] = useState<Unsent[]>([]);
  const [everywhere, setEverywhere] = useState(false);
  const leave = useCallback(
    (all: boolean) =>
      forgetDevice()
        .finally(() => api.signOut(all))
        .finally(() => {
          queries.clear();
          window.location.assign("/");
        }),
    [queries],
  );
  const value = useMemo<SignedIn | null>(() => {
    if (!account || !shop) return null;
    const signOut = (everywhere = false) => {
      void unsentHere().then((left) => {
        setEverywhere(everywhere);
        if (left.length > 0) setUnsent(left);
        else void leave(everywhere);
      });
    };
    return { account, shop, session: { ...session.data, account, shop } as Session, format: formatter(shop), signOut };
  }, [account, shop, session.data, leave]);

  const over = useSessionOver(value !== null);

  if (session.isPending) return <Middle aria-busy="true">Opening the ledger…</Middle>;
  if (session.isError)
    return (
      <Middle>
        <Notice role="alert">
          <p>{session.error.message}</p>
          <p>
            <Button onPress={() => void session.refetch()}>Try again</Button>
          </p>
        </Notice>
      </Middle>
    );
  const token = invited();
  if (token && !value)
    return (
      <Suspense fallback={null}>
        <Join token={token} />
      </Suspense>
    );
  if (!value && session.data?.first_run)
    return (
      <Suspense fallback={null}>
        <FirstRun />
      </Suspense>
    );
  if (!value) return <SignIn />;
  return (
    <I18nProvider locale={value.shop.locale}>
      <SessionContext.Provider value={value}>
        {children}
        {over.isOver && (
          <SignInAgain
            session={value.session}
            onSignedIn={(fresh) => {
              queries.setQueryData(["session"], fresh);
              over.goOn();
            }}
            onLeave={() => window.location.assign("/")}
          />
        )}
        {unsent.length > 0 && (
          <UnsentDialog unsent={unsent} onSignOut={() => void leave(everywhere)} onClose={() => setUnsent([])} />
        )}
      </SessionContext.Provider>
    </I18nProvider>
  );
}

export function useSession(): SignedIn {
  const session = useContext(SessionContext);
  if (!session) throw new Error("Nobody is signed in");
  return session;
}
