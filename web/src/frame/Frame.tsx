import { useState } from "react";
import { Link, Outlet, useLocation, useNavigate } from "react-router";
import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { KeyHint } from "../shared/parts";
import { AccountDialog } from "../account/AccountDialog";
import { KeysDialog } from "./KeysDialog";
import { scrolls } from "../shared/scrolls";

const Book = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 40px;
  grid-template-rows: minmax(0, 1fr);
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr) auto;
  }
  @media print {
    display: block;
    height: auto;
  }
`;

const Index = styled.nav`
  display: flex;
  flex-direction: column;
  align-items: flex-end;
  gap: 5px;
  padding-top: 56px;
  background: var(--paper);
  border-left: 0;
  a,
  button {
    writing-mode: vertical-rl;
    font-size: 13px;
    padding: 10px 8px;
    border: 1px solid var(--strong);
    border-left: 0;
    border-radius: 0 8px 8px 0;
    width: 32px;
    text-decoration: none;
    background: var(--sheet);
    color: var(--second);
    cursor: pointer;
  }
  a[aria-current="page"] {
    background: var(--ink);
    color: var(--sheet);
    border-color: var(--ink);
    width: 38px;
    font-weight: 650;
  }
  a:hover,
  button:hover {
    color: var(--ink);
  }
  a[aria-current="page"]:hover {
    color: var(--sheet);
  }
  kbd {
    writing-mode: horizontal-tb;
    padding: 2px 3px;
  }
  .rest {
    margin-top: auto;
    margin-bottom: 12px;
  }
  /* Low screens: all of it in sight, closer together. */
  @media (min-width: 1101px) and (max-height: 770px) {
    gap: 3px;
    padding-top: 8px;
    a,
    button {
      padding: clamp(2px, 1.6vh - 4px, 8px) 8px;
      font-size: clamp(11px, 2vh, 13px);
    }
    .rest {
      margin-bottom: 3px;
    }
  }
  @media (min-width: 1101px) and (max-height: 640px) {
    kbd {
      display: none;
    }
  }
  @media (max-width: 1100px) {
    flex-direction: row;
    padding: 0 12px;
    align-items: flex-start;
    border-top: 1px solid var(--strong);
    gap: 4px;
    a,
    button {
      writing-mode: horizontal-tb;
      display: inline-flex;
      gap: 4px;
      align-items: center;
      width: auto;
      border: 1px solid var(--strong);
      border-top: 0;
      border-radius: 0 0 8px 8px;
      padding: 12px 10px;
      min-height: 44px;
    }
    a[aria-current="page"] {
      width: auto;
    }
    .rest {
      margin: 0 0 0 auto;
    }
  }
  @media (max-width: 760px) {
    padding: 0 4px;
    flex-wrap: wrap;
    gap: 3px;
    a,
    button {
      padding: 12px 3px;
      font-size: 12px;
    }
    a.here,
    .rest,
    kbd {
      display: none;
    }
  }
  @media print {
    display: none;
  }
`;

const Page = styled.div`
  min-width: 0;
  min-height: 0;
  ${scrolls}
  @media print {
    overflow: visible;
  }
`;

const TABS = [
  { to: "/", label: "Counter", match: /^\/$/ },
  { to: "/day", label: "Day", match: /^\/(day|calendar)/ },
  { to: "/bay", label: "Bay", match: /^\/bay/ },
  { to: "/engines", label: "Engines", match: /^\/(engines|workshop|compare)/ },
  { to: "/ledger", label: "Ledger", match: /^\/ledger/ },
  { to: "/prices", label: "Prices", match: /^\/prices/ },
  { to: "/house", label: "House", match: /^\/house/ },
];

/** The book: a page, and the thumb index cut into its edge. */
export function Frame() {
  const { signOut, account } = useSession();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const [help, setHelp] = useState(false);
  const [own, setOwn] = useState(false);
  useKeys([
    { key: "?", hint: "?", label: "List all keys", run: () => setHelp(true) },
    { key: "h", hint: "H", label: "Go to the Counter", run: () => navigate("/") },
  ]);
  const inQuote = pathname.startsWith("/quotes/");

  return (
    <Book>
      <Page>
        <Outlet />
      </Page>
      <Index aria-label="Sections">
        {TABS.map((tab) => (
          <Link key={tab.to} to={tab.to} aria-current={tab.match.test(pathname) ? "page" : undefined}>
            {tab.label} {tab.to === "/" && <KeyHint>H</KeyHint>}
          </Link>
        ))}
        {pathname.startsWith("/cars/") && (
          <Link to={pathname} aria-current="page" className="here">
            Car
          </Link>
        )}
        {pathname.startsWith("/bills/") && (
          <Link to={pathname} aria-current="page" className="here">
            Bill
          </Link>
        )}
        {inQuote && (
          <Link to={pathname} aria-current="page" className="here">
            Quote
          </Link>
        )}
        <button type="button" className="rest" onClick={() => setHelp(true)}>
          Keys <KeyHint>?</KeyHint>
        </button>
        <button type="button" onClick={() => setOwn(true)} title={`Signed in as ${account.name}`}>
          Account
        </button>
        <button type="button" onClick={() => signOut()} title={`Signed in as ${account.name}`}>
          Sign out
        </button>
      </Index>
      {own && <AccountDialog onClose={() => setOwn(false)} />}
      {help && <KeysDialog onClose={() => setHelp(false)} />}
    </Book>
  );
}
