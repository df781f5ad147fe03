import type { CardSheet, Mark } from "../api/client";
import { Dialog } from "../shared/Dialog";
import type { Formatter } from "../shared/format";
import { mark } from "./offlineQueue";
import { markWords } from "./markWords";
import { Press } from "./parts";

interface Props {
  sheet: CardSheet;
  marks: Mark[];
  undone: string[];
  format: Formatter;
  press: (...marks: Mark[]) => void;
  onClose: () => void;
}

/** What was marked, newest first; a wrong one is taken back by another mark. */
export function MarksDialog({ sheet, marks, undone, format, press, onClose }: Props) {
  const shown = marks.filter((one) => one.kind !== "undo").sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
  return (
    <Dialog title="Marked on this card" onClose={onClose} wide>
      <ul style={{ listStyle: "none", padding: 0, margin: 0 }}>
        {shown.map((one) => {
          const gone = undone.includes(one.id);
          const said = markWords(one, sheet);
          return (
            <li
              key={one.id}
              style={{
                display: "flex",
                gap: 14,
                alignItems: "center",
                justifyContent: "space-between",
                borderBottom: "1px solid var(--rule)",
                padding: "6px 0",
              }}
            >
              <span style={gone ? { textDecoration: "line-through", color: "var(--second)" } : undefined}>
                {format.lately(one.at)} · {said}
              </span>
              {!gone && (
                <Press aria-label={`Take back: ${said}`} onPress={() => press(mark("undo", { of: one.id }))}>
                  Take back
                </Press>
              )}
            </li>
          );
        })}
      </ul>
    </Dialog>
  );
}
