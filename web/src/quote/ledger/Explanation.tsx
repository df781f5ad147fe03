import { useState } from "react";
import styled from "styled-components";
import type { Sheet } from "../../api/client";
import { Dialog } from "../../shared/Dialog";
import { useKeys } from "../../shared/keys";
import { olderFigures } from "../../shared/olderFigures";
import { Asked, KeyHint, Small } from "../../shared/parts";

const Box = styled.div`
  border-left: 5px solid var(--ink);
  background: var(--sheet);
  padding: 8px 14px;
  line-height: 1.35;
  [data-older] & p {
    ${olderFigures}
  }
`;
const Spoken = styled.p`
  font-size: 17px;
  line-height: 1.45;
  margin-bottom: 16px;
`;
const Rows = styled.ol`
  list-style: none;
  padding: 0;
  margin: 4px 0 0;
  columns: 2 240px;
  column-gap: 28px;
  font-size: 14px;
  border-top: 1px solid var(--strong);
  li {
    padding: 3px 0;
    border-bottom: 1px solid var(--rule);
    break-inside: avoid;
  }
`;

/** Why it costs this, in the customer's words; one paragraph more to read out, with the job in order below it. */
export function Explanation({ text, stale }: { text: NonNullable<Sheet["explanation"]>; stale: boolean }) {
  const [open, setOpen] = useState(false);
  useKeys([{ key: "e", hint: "E", label: "Words to read out", run: () => setOpen(true) }]);
  return (
    <Box aria-busy={stale}>
      <p>
        {text.short}{" "}
        <Asked onPress={() => setOpen(true)}>
          to read out <KeyHint>E</KeyHint>
        </Asked>
      </p>
      {open && (
        <Dialog title="To read out" onClose={() => setOpen(false)} wide>
          <Spoken>{text.spoken}</Spoken>
          <Small>The job in order, for whoever asks</Small>
          <Rows>
            {text.in_order.map((line, i) => (
              <li key={`${i}-${line}`}>{line}</li>
            ))}
          </Rows>
        </Dialog>
      )}
    </Box>
  );
}
