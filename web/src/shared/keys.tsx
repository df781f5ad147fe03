import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";

/** One key of the screen: what it is called and what it does. `key` is what the keyboard sends, lower case. */
export interface Binding {
  key: string;
  hint: string;
  label: string;
  run: () => void;
}

interface Keys {
  enabled: boolean;
  setEnabled: (on: boolean) => void;
  register: (id: symbol, bindings: Binding[]) => void;
  drop: (id: symbol) => void;
  all: () => Binding[];
}

const KeysContext = createContext<Keys | null>(null);
const STORE = "nimble-keys";

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) ||
      target.closest("[role=spinbutton], [role=listbox], [role=option], [aria-haspopup=listbox]") !== null)
  );
}

/** Holds the keys of whatever is on the screen. Keys rest in fields and dialogs, and can be switched off. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const groups = useRef(new Map<symbol, Binding[]>());
  const [enabled, setOn] = useState(() => localStorage.getItem(STORE) !== "off");

  const setEnabled = useCallback((on: boolean) => {
    localStorage.setItem(STORE, on ? "on" : "off");
    setOn(on);
  }, []);

  useEffect(() => {
    document.documentElement.dataset.keys = enabled ? "on" : "off";
    if (!enabled) return;
    const press = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        typing(event.target) ||
        document.querySelector("[role=dialog]")
      )
        return;
      const found = [...groups.current.values()].flat().find((binding) => binding.key === event.key.toLowerCase());
      if (!found) return;
      event.preventDefault();
      found.run();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [enabled]);

  const value = useMemo<Keys>(
    () => ({
      enabled,
      setEnabled,
      register: (id, bindings) => groups.current.set(id, bindings),
      drop: (id) => groups.current.delete(id),
      all: () => [...groups.current.values()].flat(),
    }),
    [enabled, setEnabled],
  );
  return <KeysContext.Provider value={value}>{children}</KeysContext.Provider>;
}

export function useKeysState(): Keys {
  const keys = useContext(KeysContext);
  if (!keys) throw new Error("KeysProvider is missing");
  return keys;
}

/** Adds keys while the calling component is on the screen. */
export function useKeys(bindings: Binding[]): void {
  const { register, drop } = useKeysState();
  const id = useRef(Symbol("keys"));
  useEffect(() => {
    register(id.current, bindings);
  });
  useEffect(() => {
    const own = id.current;
    return () => drop(own);
  }, [drop]);
}
