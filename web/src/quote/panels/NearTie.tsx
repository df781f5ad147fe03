import type { Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { Asked, Small } from "../../shared/parts";
import { sparedWords } from "./routes";

type Plan = NonNullable<Sheet["estimate"]>["plan"];

interface Props {
  ties: Plan["near_ties"];
  /** The one the house's rule took. */
  taken: Sheet["tie_taken"];
  onPins?: (pins: Scope["pins"]) => void;
  /** Leaves it for this job. */
  onLeave?: () => void;
}

/** A way about as short that spares the car something, with the press that takes it. */
export function NearTie({ ties, taken, onPins, onLeave }: Props) {
  const { format } = useSession();
  const tie = taken ?? ties?.[0];
  if (!tie) return null;
  const minutes = Math.round(tie.extra_minutes);
  return (
    <p style={{ display: "flex", flexWrap: "wrap", gap: "0 12px", alignItems: "baseline", fontSize: 14 }}>
      <Small>
        {taken ? "The quieter way, by the house's rule" : "A near tie"}:{" "}
        {minutes > 0 ? `${format.minutes(minutes)} min more` : "as long"},{" "}
        {list(tie.spares.map((spared) => sparedWords[spared]))}.
      </Small>
      {taken
        ? onLeave && <Asked onPress={onLeave}>take the shortest</Asked>
        : onPins && (
            <Asked onPress={() => onPins({ ways: ties?.[0]?.ways, choices: ties?.[0]?.choices })}>take that way</Asked>
          )}
    </p>
  );
}
