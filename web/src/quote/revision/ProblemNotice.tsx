import { Link } from "react-router";
import styled from "styled-components";
import type { Sheet } from "../../api/client";
import { list } from "../../shared/format";
import { Button, KeyHint, Notice, Strong } from "../../shared/parts";

const Ways = styled.ul`
  margin: 6px 0;
  padding: 0;
  list-style: none;
  li {
    padding: 3px 0;
    border-top: 1px solid var(--rule);
  }
`;
const words = (id: string) => id.replaceAll("-", " ");
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** One way that does not open, and what it lacks. */
interface Shut {
  label?: string;
  way?: string;
  takes?: string[];
}

interface Props {
  problem: NonNullable<Sheet["problem"]>;
  pinned: boolean;
  onLetGo?: () => void;
}

/** A job that cannot be planned: which target, what would open it, and where to say that the shop has it. */
export function ProblemNotice({ problem, pinned, onLetGo }: Props) {
  const ways = problem.details as Shut[];
  const label = ways[0]?.label;
  return (
    <Notice role="alert">
      <p>
        {label ? (
          <Strong>
            {label} cannot be reached with what the shop has{pinned && " and the routes pinned"}.
          </Strong>
        ) : (
          problem.message
        )}
      </p>
      {label && (
        <Ways aria-label="What would open it">
          {ways.map((row) => (
            <li key={row.way}>
              {capital(words(row.way ?? ""))}: {row.takes?.length ? `takes ${list(row.takes)}` : "ruled out by the pin"}
            </li>
          ))}
        </Ways>
      )}
      <p>
        Choose other cylinders, or note the equipment under <Link to="/house">House</Link> when the shop has it.
      </p>
      {pinned && onLetGo && (
        <p>
          <Button onPress={onLetGo}>
            Let go of the pinned routes <KeyHint>Z</KeyHint>
          </Button>
        </p>
      )}
    </Notice>
  );
}
