import styled from "styled-components";
import type { EngineProfile } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Button } from "../shared/parts";
import type { Clash } from "../working/workingCopy";
import type { EngineDraft } from "./useEngineDraft";

const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
  margin-top: 12px;
  ul {
    list-style: none;
    margin: 6px 0 12px;
    padding: 0;
    font-size: 14px;
  }
  .other {
    font-weight: 650;
  }
`;

interface Props {
  draft: EngineDraft;
  clash: Clash<EngineProfile>;
}

/** Two who draw one engine see each other's layers, and choose. */
export function ClashDialog({ draft, clash }: Props) {
  const { format } = useSession();
  const line = (step: EngineProfile["steps"][number]) =>
    `${step.label}: ${format.figure(step.remove?.[1] ?? 0)} off, ${format.figure(step.refit?.[1] ?? 0)} on`;
  const mine = draft.profile.steps.map(line);
  const theirs = clash.theirs.steps.map(line);
  const side = (lines: string[], others: string[]) => (
    <ul>
      {lines.map((text, i) => (
        <li key={`${i}-${text}`} className={others.includes(text) ? undefined : "other"}>
          {text}
        </li>
      ))}
    </ul>
  );
  return (
    <Dialog title="Changed meanwhile" onClose={() => undefined} wide>
      <p>{clash.message}</p>
      <Two>
        <div>
          <b>Yours</b>
          {side(mine, theirs)}
          <Button onPress={draft.keepMine}>Keep mine</Button>
        </div>
        <div>
          <b>
            {clash.by ?? "Theirs"}
            {clash.at && `, ${format.lately(clash.at)}`}
          </b>
          {side(theirs, mine)}
          <Button onPress={draft.takeTheirs}>Take theirs</Button>
        </div>
      </Two>
    </Dialog>
  );
}
