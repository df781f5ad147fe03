import styled from "styled-components";
import type { Option, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Button, Notice, Small, Strong, Unseen } from "../../shared/parts";
import { against, why } from "./routes";

const Group = styled.section`
  margin: 8px 0 4px;
  h3 {
    font-weight: 650;
    font-size: 14px;
    border-bottom: 1px solid var(--rule);
    padding-bottom: 3px;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    align-items: center;
    padding: 6px 0 6px 10px;
    border-bottom: 1px solid var(--rule);
    border-left: 4px solid transparent;
  }
  li[data-in-force] {
    border-left-color: var(--ink);
    background: var(--sheet);
  }
  li[data-looked-at] {
    border-left: 4px dashed var(--ink);
  }
  button {
    min-height: 30px;
    padding: 1px 10px;
    font-size: 14px;
  }
`;

interface Props {
  decisions: NonNullable<Sheet["routes"]>;
  stale: boolean;
  looked: string | null;
  onLook: (label: string) => void;
  onPins?: (pins: Option["pins"]) => void;
}

/** The ways to do the job: which is in force and why, what the others would take, and what the shop lacks for them. */
export function RoutesPanel({ decisions, stale, looked, onLook, onPins }: Props) {
  const { format } = useSession();
  if (decisions.length === 0)
    return (
      <Notice>
        <p>There is one way to this job.</p>
        <p>Where an engine can be reached by several, they are compared here.</p>
      </Notice>
    );
  return (
    <div aria-busy={stale}>
      {decisions.map((decision) => (
        <Group key={decision.label}>
          <h3>{decision.label}</h3>
          <ul>
            {decision.options.map((option) => (
              <li
                key={option.label}
                data-in-force={option.in_force ? "" : undefined}
                data-looked-at={looked === option.label ? "" : undefined}
                onPointerEnter={() => onLook(option.label)}
                onFocus={() => onLook(option.label)}
              >
                <span>
                  <Strong>{option.label}</Strong> {option.in_force && <Small>{why(option)}</Small>}
                  <br />
                  <Small>
                    {option.in_force ? `${format.hours(option.quoted_hours)} h` : against(option, format)}
                    {option.equipment.length > 0 &&
                      option.missing.length === 0 &&
                      ` · with ${option.equipment.join(", ")}`}
                    {option.missing.length > 0 && ` · the shop has no ${option.missing.join(", no ")}`}
                  </Small>
                </span>
                {onPins && option.missing.length === 0 && (
                  <Button onPress={() => onPins(option.pins)} isDisabled={stale}>
                    {option.pinned ? "Let go" : option.in_force ? "Hold" : "Pin"} <Unseen>{option.label}</Unseen>
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </Group>
      ))}
      <p>
        <Small>
          The least work is chosen anew at every change, unless a route is pinned. Dashed on the descent: the route you
          are looking at.
        </Small>
      </p>
    </div>
  );
}
