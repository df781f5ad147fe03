import type { Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { Asked, Small } from "../../shared/parts";
import { sparedWords } from "./routes";

type Plan = NonNullable<Sheet["estimate"]>["plan"];

interface Props {
  ties: Plan["near_ties"];
  onPins?: (pins: Scope["pins"]) => void;
}

/** A way about as short that spares the car something, with the press that takes it. */
export function NearTie({ ties, onPins }: Props) {
  const { format } = useSession();
  const tie = ties?.[0];
  if (!tie) return null;
  const minutes = Math.round(tie.extra_minutes);
  return (
    <p style={{ display: "flex", flexWrap: "wrap", gap: "0 12px", alignItems: "baseline", fontSize: 14 }}>
      <Small>
        A near tie: {minutes > 0 ? `${format.minutes(minutes)} min more` : "as long"},{" "}
        {list(tie.spares.map((spared) => sparedWords[spared]))}.
      </Small>
      {onPins && <Asked onPress={() => onPins({ ways: tie.ways, choices: tie.choices })}>take that way</Asked>}
    </p>
  );
}
