import type { ComponentType } from "react";

/** Each screen as the module it comes in, loaded when it is opened. */
const SCREENS = {
  counter: async () => (await import("../counter/Counter")).Counter,
  quote: async () => (await import("../quote/QuoteRoute")).QuoteRoute,
  revision: async () => (await import("../quote/revision/RevisionRoute")).RevisionRoute,
  ledger: async () => (await import("../ledger/LedgerRoute")).LedgerRoute,
  practice: async () => (await import("../practice/PracticeRoute")).PracticeRoute,
  trace: async () => (await import("../trace/TraceRoute")).TraceRoute,
  yes: async () => (await import("../yes/YesRoute")).YesRoute,
  day: async () => (await import("../day/DayRoute")).DayRoute,
  calendar: async () => (await import("../day/CalendarRoute")).CalendarRoute,
  jobs: async () => (await import("../bay/Jobs")).Jobs,
  card: async () => (await import("../bay/CardRoute")).CardRoute,
  bench: async () => (await import("../bench/BenchRoute")).BenchRoute,
  bill: async () => (await import("../bill/BillRoute")).BillRoute,
  car: async () => (await import("../car/CarRoute")).CarRoute,
  engines: async () => (await import("../engines/Engines")).Engines,
  workshop: async () => (await import("../workshop/WorkshopRoute")).WorkshopRoute,
  compare: async () => (await import("../workshop/CompareRoute")).CompareRoute,
  engine: async () => (await import("../engines/EngineRoute")).EngineRoute,
  prices: async () => (await import("../prices/PriceRoute")).PriceRoute,
  house: async () => (await import("../house/HouseRules")).HouseRules,
} satisfies Record<string, () => Promise<ComponentType>>;

/** A route's screen; the page before it stays until it is here. */
export function screen(name: keyof typeof SCREENS) {
  return { lazy: async () => ({ Component: await SCREENS[name]() }) };
}

/**
 * Fetches the other screens once the first is up, so that going to one neither waits nor fails while the server is
 * away.
 */
export function fetchTheRest(): void {
  setTimeout(() => Object.values(SCREENS).forEach((load) => load().catch(() => undefined)), 1_500);
}
