import styled from "styled-components";
import type { CardState, JobCard, Mark } from "../api/client";
import { mainAct } from "./acts";
import type { InHand } from "./inHand";
import { mark } from "./offlineQueue";
import { Big } from "./parts";

const Bar = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr 1.4fr;
  gap: 12px;
  padding: 10px 0 14px;
  border-top: 1px solid var(--rule);
  background: var(--paper);
`;

interface Props {
  card: JobCard;
  state: CardState;
  hand: InHand | null;
  /** The id of what fights now. */
  fight?: string;
  press: (...marks: Mark[]) => void;
  onAsk: (what: "fight" | "found") => void;
}

/** Under the thumb: it fights, found something, and the one press that moves the job on. */
export function BottomBar(props: Props) {
  const { card, state, hand, fight, onAsk } = props;
  const main = mainOf(props);
  return (
    <Bar>
      <Big isDisabled={!hand || Boolean(fight)} onPress={() => onAsk("fight")}>
        It fights
      </Big>
      <Big isDisabled={!state.started_at || Boolean(card.job.handed_over_at)} onPress={() => onAsk("found")}>
        Found something
      </Big>
      <Big $main isDisabled={!main.run} onPress={() => main.run?.()}>
        {main.label}
      </Big>
    </Bar>
  );
}

function mainOf({ card, state, hand, fight, press }: Props): { label: string; run?: () => void } {
  if (!state.started_at) return { label: "Start", run: () => press(mark("start")) };
  if (state.finished_at) return { label: "Finished" };
  if (state.paused) return { label: "Go on", run: () => press(mark("resume")) };
  if (fight) return { label: "It gave way", run: () => press(mark("over", { of: fight })) };
  if (!hand) {
    const open = card.standing.open.length > 0;
    return open ? { label: "Something is open" } : { label: "All done: finish", run: () => press(mark("finished")) };
  }
  const act = mainAct(hand, state);
  if (!act) return { label: "Choose above" };
  const { marks } = act;
  return { label: act.label, run: marks && (() => press(...marks())) };
}
