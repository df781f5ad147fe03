import { list } from "../shared/format";
import { Button, Notice } from "../shared/parts";
import type { Tracing } from "./useTrace";
import { testWords } from "./words";

/** Parts that sit where they did not come from: numbered, and put back to their cylinder or left there knowingly. */
export function Moved({ tracing }: { tracing: Tracing }) {
  const { sheet, content, change } = tracing;
  if (sheet.moved.length === 0) return null;
  const swaps = (content.evidence ?? []).map((one, i) => ({ one, i })).filter(({ one }) => one.with && !one.back);
  return (
    <Notice role="status" style={{ marginTop: 10 }}>
      {sheet.moved.map((part) => (
        <p key={`${part.kind}-${part.from.join()}`}>
          The {part.kind} of {list(part.from)} sits at {list(part.now)} now: number it.
        </p>
      ))}
      <p style={{ display: "flex", gap: 8, flexWrap: "wrap", marginTop: 8 }}>
        {swaps.map(({ one, i }) => (
          <Button
            key={i}
            onPress={() =>
              change((old) => ({
                ...old,
                evidence: (old.evidence ?? []).map((row, j) => (j === i ? { ...row, back: true } : row)),
              }))
            }
          >
            {testWords(one)}: put back
          </Button>
        ))}
      </p>
    </Notice>
  );
}
