import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, lazy, type ReactNode, Suspense, useContext, useMemo } from "react";
import { I18nProvider } from "react-aria-components";
import styled from "styled-components";
import { api, type Session, setToken } from "../api/client";
import { formatter, type Formatter } from "../shared/format";
import { Button, Notice } from "../shared/parts";
import { invited } from "./invited";
import { SignIn } from "./SignIn";

const FirstRun = lazy(async () => ({ default: (await import("../first/FirstRun")).FirstRun }));
const Join = lazy(async () => ({ default: (await import("../people/Join")).Join }));

interface SignedIn {
  account: NonNullable<Session["account"]>;
  shop: NonNullable<Session["shop"]>;
  format: Formatter;
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

/** Shows the sign-in until somebody is signed in; then hands out the shop, its units and formats. */
export function SessionGate({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const session = useQuery({
    queryKey: ["session"],
    queryFn: async () => {
      const found = await api.session();
      setToken(found.csrf);
      return found;
    },
    staleTime: Number.POSITIVE_INFINITY,
  });
  const { account, shop } = session.data ?? {};
  const value = useMemo<SignedIn | null>(() => {
    if (!account || !shop) return null;
    const signOut = (everywhere = false) => {
      void api.signOut(everywhere).finally(() => {
        queries.clear();
        window.location.assign("/");
      });
    };
    return { account, shop, format: formatter(shop), signOut };
  }, [account, shop, queries]);

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
      <SessionContext.Provider value={value}>{children}</SessionContext.Provider>
    </I18nProvider>
  );
}

export function useSession(): SignedIn {
  const session = useContext(SessionContext);
  if (!session) throw new Error("Nobody is signed in");
  return session;
}
