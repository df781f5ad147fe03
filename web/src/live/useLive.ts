import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { askAnew } from "./askAnew";

/** What is asked for anew when the shop's quotes, offers or jobs have changed. */
const TOUCHED: Record<string, string[]> = {
  quotes: ["counter", "yes", "find", "car-file", "bill"],
  jobs: ["counter", "jobs", "bill", "day", "when"],
  day: ["day", "when", "counter"],
  ledger: ["ledger"],
};

/** Listens for what changed elsewhere, in this process or another; the browser comes back by itself. */
export function useLive(): void {
  const queries = useQueryClient();
  useEffect(() => {
    const source = new EventSource("/api/events");
    const ask = (keys: string[]) => void askAnew(queries, keys);
    source.addEventListener("changed", (event: MessageEvent<string>) => ask(TOUCHED[event.data] ?? []));
    // What happened while nobody listened is not told again: neither between the first look and this, nor in a gap.
    source.addEventListener("listening", () => Object.values(TOUCHED).forEach(ask));
    return () => source.close();
  }, [queries]);
}
