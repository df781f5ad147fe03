import type { Descent } from "../../api/client";

/**
 * What each stroke is called from one descent to the next: the same piece keeps its name when it moves, and with it its
 * place in the page and the focus on it.
 */
export function strokeKeys(strokes: Pick<Descent["strokes"][number], "kind" | "ref">[]): string[] {
  const seen = new Map<string, number>();
  return strokes.map(({ kind, ref }) => {
    const name = `${kind}-${ref}`;
    const before = seen.get(name) ?? 0;
    seen.set(name, before + 1);
    return before === 0 ? name : `${name}-${before}`;
  });
}
