import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import type { Ahead, Content } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Choice } from "../../shared/fields/Choice";
import { DistanceBox } from "../../shared/fields/DistanceBox";
import { Heading, Small } from "../../shared/parts";
import { ahead as sentence } from "./aheadWords";

const Told = styled(ToggleButton)`
  min-height: 38px;
  padding: 4px 14px;
  border: 1.4px solid var(--ink);
  border-radius: 19px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
  &[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
`;

type Assumed = NonNullable<Content["ahead"]>;

interface Props {
  ahead: Ahead;
  /** What each scope is called, by its place. */
  names: string[];
  onAssume?: (assumed: Assumed) => void;
}

const MONTHS = [12, 24, 36, 60];
const FOUND = [
  { id: "unknown", text: "not looked at" },
  { id: "weak", text: "found weak" },
  { id: "sound", text: "found sound" },
];

/** What the months after bring with each scope, in a sentence, with every assumption beside it. */
export function AheadPart({ ahead, names, onAssume }: Props) {
  const { format } = useSession();
  return (
    <section aria-label="The months after">
      <Heading style={{ marginTop: 18 }}>The months after</Heading>
      <p style={{ margin: "6px 0 10px", maxWidth: 720 }}>{sentence(ahead, names, format)}</p>
      <div style={{ display: "flex", gap: 18, flexWrap: "wrap", alignItems: "flex-end" }}>
        <Choice
          label="Looked ahead"
          value={String(ahead.months)}
          options={[...new Set([...MONTHS, ahead.months])].map((months) => ({
            id: String(months),
            text: `${months} months`,
          }))}
          onPick={(months) => onAssume?.({ months: Number(months) })}
          isDisabled={!onAssume}
        />
        <DistanceBox
          label="The car goes a year"
          km={ahead.yearly_km}
          onKm={(km) => km !== null && onAssume?.({ yearly_km: Math.round(km) })}
          isDisabled={!onAssume}
        />
        <Choice
          label="The other coils"
          value={ahead.found.coil ?? "unknown"}
          options={FOUND}
          onPick={(found) => onAssume?.({ found: found === "unknown" ? {} : { coil: found as "weak" | "sound" } })}
          isDisabled={!onAssume}
        />
        <Told isSelected={ahead.shown} onChange={(shown) => onAssume?.({ shown })} isDisabled={!onAssume}>
          Tell the customer
        </Told>
      </div>
      <Small as="p" style={{ marginTop: 8 }}>
        Lives of parts are house figures, learned from nobody&#39;s car: they say which way it leans.
      </Small>
    </section>
  );
}
