import { useState } from "react";
import styled from "styled-components";
import type { Sheet } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { useKeys } from "../shared/keys";
import { Asked, KeyHint } from "../shared/parts";

const Box = styled.div`
  border-left: 5px solid var(--ink); background: var(--sheet); padding: 8px 14px; line-height: 1.35;
  &[aria-busy="true"] p { color: var(--second); }
`;
const Read = styled.ol`list-style: none; padding: 0; margin: 0; li { padding: 3px 0; border-bottom: 1px solid var(--rule); } li:first-child { font-size: 17px; padding-bottom: 8px; }`;

/** Why it costs this, in the customer's words; the longer form is for reading out. */
export function Explanation({ text, stale }: { text: NonNullable<Sheet["explanation"]>; stale: boolean }) {
  const [open, setOpen] = useState(false);
  useKeys([{ key: "e", hint: "E", label: "Explain at length", run: () => setOpen(true) }]);
  return (
    <Box aria-busy={stale}>
      <p>
        {text.short}{" "}
        <Asked onPress={() => setOpen(true)}>
          at length <KeyHint>E</KeyHint>
        </Asked>
      </p>
      {open && (
        <Dialog title="To read out" onClose={() => setOpen(false)}>
          <Read>
            {text.long.split("\n").map((line, i) => (
              <li key={`${i}-${line}`}>{line}</li>
            ))}
          </Read>
        </Dialog>
      )}
    </Box>
  );
}
