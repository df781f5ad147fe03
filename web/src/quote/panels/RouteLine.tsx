import styled from "styled-components";
import type { Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Asked, KeyHint, Small, Strong } from "../../shared/parts";
import { against, why } from "./routes";

const Line = styled.p`
  font-size: 14px;
  line-height: 1.35;
  padding: 3px 0 5px;
  border-top: 1px solid var(--rule);
  margin-bottom: 4px;
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
  & > :first-child {
    flex: 1 1 300px;
  }
  button {
    white-space: nowrap;
  }
`;

interface Props {
  decisions: NonNullable<Sheet["routes"]>;
  pinned: boolean;
  onOpen: () => void;
  onLetGo?: () => void;
}

/** In one line: which route is in force, why, and what the other would cost. */
export function RouteLine({ decisions, pinned, onOpen, onLetGo }: Props) {
  const { format } = useSession();
  const first = decisions[0];
  const now = first?.options.find((option) => option.in_force);
  const other = first?.options.find((option) => !option.in_force);
  if (!first || !now || !other) return null;
  return (
    <Line data-testid="route">
      <span>
        Route: <Strong>{now.label.toLowerCase()}</Strong>, {why(now)}.{" "}
        <Small>
          {other.label}: {against(other, format)}
          {other.missing.length > 0 && `, but the shop has no ${other.missing.join(", no ")}`}
          {decisions.length > 1 && `; ${decisions.length - 1} more to choose`}.
        </Small>
      </span>
      <Asked onPress={onOpen}>
        routes <KeyHint>X</KeyHint>
      </Asked>
      {pinned && onLetGo && (
        <Asked onPress={onLetGo}>
          let go of the pin <KeyHint>Z</KeyHint>
        </Asked>
      )}
    </Line>
  );
}
