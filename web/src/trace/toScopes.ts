import type { Content, Scope, TraceSheet } from "../api/client";

/** A quote with the scopes a trace leads to, in place of what stood there; nothing where no part is pointed at. */
export function toScopes(content: Content, sheet: Pick<TraceSheet, "leads_to">): Content | null {
  if (sheet.leads_to.length === 0) return null;
  const scopes = sheet.leads_to.map(({ works, cylinders }) => ({
    name: "",
    works: works as Scope["works"],
    cylinders,
    extras: [],
  }));
  return { ...content, scopes, active: 0, codes: true };
}
