import styled from "styled-components";
import type { Content } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { Button } from "../../shared/parts";
import type { Clash } from "../useWorkingCopy";
import { describe } from "../scopes/works";

const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
  margin: 14px 0;
  article {
    border-top: 2px solid var(--ink);
    padding-top: 8px;
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  h3 {
    font-weight: 650;
  }
  ul {
    margin: 0;
    padding-left: 18px;
    flex: 1;
  }
  @media (max-width: 560px) {
    grid-template-columns: 1fr;
  }
`;

interface Props {
  clash: Clash;
  yours: Content;
  onMine: () => void;
  onTheirs: () => void;
}

/** Two versions of one quote: both are shown, one is chosen, nothing is lost unseen. */
export function ConflictDialog({ clash, yours, onMine, onTheirs }: Props) {
  const { format } = useSession();
  const { kind } = clash;
  const when = clash.at ? format.when(clash.at) : "";
  return (
    <Dialog title="This quote was changed elsewhere" onClose={() => undefined} wide>
      <p>{clash.message}</p>
      <Two>
        <article>
          <h3>What you have here</h3>
          <ul>
            {describe(yours, format).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <Button $main onPress={onMine}>
            Keep mine
          </Button>
        </article>
        <article>
          <h3>
            {kind === "revision" ? `Revision ${clash.revision}, ${clash.by}, ${when}` : `The other window, ${when}`}
          </h3>
          <ul>
            {describe(clash.theirs, format).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <Button onPress={onTheirs}>Take the other</Button>
        </article>
      </Two>
    </Dialog>
  );
}
