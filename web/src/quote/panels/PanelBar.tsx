import { memo } from "react";
import { ToggleButton } from "react-aria-components";
import { Link, useLocation, useNavigate } from "react-router";
import styled from "styled-components";
import { useKeys } from "../../shared/keys";
import { KeyHint } from "../../shared/parts";
import { PANELS, type Panel } from "./panels";

const PanelHead = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  border-bottom: 1px solid var(--strong);
  button {
    border: 0;
    background: none;
    padding: 2px 0 3px;
    cursor: pointer;
    font-size: 14px;
    color: var(--second);
    border-bottom: 3px solid transparent;
  }
  button[data-selected] {
    color: var(--ink);
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  button[data-disabled] {
    cursor: default;
  }
  a {
    margin-left: auto;
    padding: 2px 0 3px;
    font-size: 14px;
    color: var(--second);
  }
`;

interface Props {
  open: Panel;
  /** Whether there is a job to show routes and parts of, and trouble to show. */
  job: boolean;
  trouble: boolean;
  onPanel: (panel: Panel) => void;
}

/** Which panel stands under the drawing. */
export const PanelBar = memo(function PanelBar({ open, job, trouble, onPanel }: Props) {
  const address = useLocation().pathname.replace(/\/$/, "");
  const navigate = useNavigate();
  useKeys([{ key: ";", hint: ";", label: "Find the fault", run: () => void navigate(`${address}/trace`) }]);
  const there = { layers: true, routes: job, parts: job, trouble };
  return (
    <PanelHead>
      {PANELS.map(({ name, label, key }) => (
        <ToggleButton key={name} isSelected={open === name} onChange={() => onPanel(name)} isDisabled={!there[name]}>
          {label} <KeyHint>{key.toUpperCase()}</KeyHint>
        </ToggleButton>
      ))}
      <Link to={`${address}/trace`}>
        Trace <KeyHint>;</KeyHint>
      </Link>
    </PanelHead>
  );
});
