import { Refused } from "../api/client";
import { sentence } from "./format";

/** What the server found wrong, by path; nothing where it said something else. */
export function faultsByPath(error: Error | null): Record<string, string> {
  if (!(error instanceof Refused)) return {};
  const rows = (error.body.error.details ?? []) as { path?: string; message?: string }[];
  return Object.fromEntries(rows.map((row) => [row.path ?? "", sentence(row.message ?? "does not fit")]));
}
