import { useState } from "react";
import { Switch } from "react-aria-components";
import styled from "styled-components";
import { Dialog } from "../shared/Dialog";
import { useKeysState } from "../shared/keys";
import { Button, KeyHint, Small } from "../shared/parts";

const List = styled.ul`
  list-style: none;
  margin: 0 0 16px;
  padding: 0;
  columns: 2;
  column-gap: 28px;
  li {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 4px 0;
    break-inside: avoid;
    border-bottom: 1px solid var(--rule);
  }
  kbd {
    min-width: 30px;
    display: inline-block !important;
  }
  @media (max-width: 560px) {
    columns: 1;
  }
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: center;
  justify-content: space-between;
`;
const Toggle = styled(Switch)`
  display: inline-flex;
  gap: 10px;
  align-items: center;
  cursor: pointer;
  &::before {
    content: "off";
    font-size: 13px;
    border: 1.4px solid var(--ink);
    border-radius: 4px;
    padding: 2px 8px;
    min-width: 42px;
    text-align: center;
  }
  &[data-selected]::before {
    content: "on";
    background: var(--ink);
    color: var(--sheet);
  }
  &[data-focus-visible]::before {
    outline: 3px solid var(--mark);
    outline-offset: 2px;
  }
`;

type Chart = "auto" | "day" | "night";
const CHART = "nimble-chart";

export function applyChart(chart: string | null): void {
  if (chart === "day" || chart === "night") document.documentElement.dataset.chart = chart;
  else delete document.documentElement.dataset.chart;
}

/** Every key of this screen, the switch for them, and day or night chart. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const { all, enabled, setEnabled } = useKeysState();
  const [bindings] = useState(all);
  const [chart, setChart] = useState<Chart>(() => (localStorage.getItem(CHART) as Chart | null) ?? "auto");
  const choose = (next: Chart) => {
    localStorage.setItem(CHART, next);
    applyChart(next);
    setChart(next);
  };

  return (
    <Dialog title="Keys on this screen" onClose={onClose} wide>
      <List>
        {bindings.map((binding) => (
          <li key={binding.key}>
            <KeyHint>{binding.hint}</KeyHint> {binding.label}
          </li>
        ))}
      </List>
      <Row>
        <Toggle isSelected={enabled} onChange={setEnabled}>
          Single keys
        </Toggle>
        <span>
          {(["auto", "day", "night"] as const).map((name) => (
            <Button key={name} onPress={() => choose(name)} $main={chart === name} aria-pressed={chart === name}>
              {name === "auto" ? "Chart as the system" : name === "day" ? "Day" : "Night"}
            </Button>
          ))}
        </span>
        <Small>Keys rest while you type in a field.</Small>
        <Button onPress={onClose}>Close</Button>
      </Row>
    </Dialog>
  );
}
