import styled from "styled-components";
import type { CardSheet } from "../api/client";
import { useSession } from "../session/SessionGate";
import type { Formatter } from "../shared/format";
import { Facts } from "./parts";

const Missing = styled.strong`
  color: var(--mark);
`;

type ByHand = NonNullable<CardSheet["by_hand"]>[number];

/** Hours of work, or pieces of anything else. */
const handWords = ({ label, quantity, class: kind }: ByHand, format: Formatter): string => {
  if (kind === "labor") return `${label}, ${format.figure(quantity ?? 1)} h`;
  return quantity === undefined ? label : `${format.figure(quantity)} × ${label}`;
};

/** Tools and parts of the whole job, laid out before it starts; what this shop lacks is named. */
export function LayOut({ sheet }: { sheet: CardSheet }) {
  const { format } = useSession();
  const { tools = [], parts = [] } = sheet.lay_out ?? {};
  const named = (list: typeof parts) => list.map((one) => `${one.quantity} × ${one.label || one.part}`).join(", ");
  const sure = parts.filter((part) => !part.perhaps);
  const perhaps = parts.filter((part) => part.perhaps);
  const byHand = sheet.by_hand ?? [];
  const wires = sheet.wires ?? [];
  return (
    <Facts aria-label="Laid out before the start" style={{ margin: "4px 0 12px" }}>
      {tools.length > 0 && (
        <>
          <dt>tools</dt>
          <dd>
            {tools.map((tool, i) => (
              <span key={tool.what}>
                {i > 0 && ", "}
                {tool.what}
                {tool.lacking && <Missing> (not in this shop)</Missing>}
              </span>
            ))}
          </dd>
        </>
      )}
      {sure.length > 0 && (
        <>
          <dt>parts</dt>
          <dd>{named(sure)}</dd>
        </>
      )}
      {perhaps.length > 0 && (
        <>
          <dt>if needed</dt>
          <dd>{named(perhaps)}</dd>
        </>
      )}
      {byHand.length > 0 && (
        <>
          <dt>agreed beside it</dt>
          <dd>{byHand.map((one) => handWords(one, format)).join(", ")}</dd>
        </>
      )}
      {wires.length > 0 && (
        <>
          <dt>wires</dt>
          <dd>{wires.map((wire) => `${wire.cylinder} from ${wire.from}`).join(", ")}</dd>
        </>
      )}
    </Facts>
  );
}
