import type { ComponentType } from "react";

/** Each screen as the module it comes in, loaded when it is opened. */
const SCREENS = {
  counter: async () => (await import("../counter/Counter")).Counter,
  quote: async () => (await import("../quote/QuoteRoute")).QuoteRoute,
  revision: async () => (await import("../quote/revision/RevisionRoute")).RevisionRoute,
  yes: async () => (await import("../yes/YesRoute")).YesRoute,
  engines: async () => (await import("../engines/Engines")).Engines,
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
