import styled from "styled-components";
import type { CardState, JobCard, Mark } from "../api/client";
import type { Formatter } from "../shared/format";
import { mark } from "./offlineQueue";
import { CURE } from "./markWords";
import { Choices, Press } from "./parts";
import { AskOn } from "./AskOn";
import { aboutPlug } from "./pieces";
import { minutesLeft, useNow } from "./useNow";
import { FIGHTS, fightSteps } from "./words";

const Panel = styled.section`
  border: 3px solid var(--mark);
  border-radius: 14px;
  background: var(--sheet);
  padding: 14px 20px;
  h2 {
    font-size: 28px;
    font-weight: 650;
  }
  ol {
    font-size: 17px;
    padding-left: 22px;
    margin: 8px 0;
  }
  li {
    padding: 5px 0;
  }
`;

interface Props {
  fight: CardState["fights"][number];
  card: JobCard;
  state: CardState;
  format: Formatter;
  press: (...marks: Mark[]) => void;
  isAdvisor: boolean;
}

/** What fights, step by step: what must be on the shelf, the cure clock, and what it does to the agreed limit. */
export function FightPanel({ fight, card, state, format, press, isAdvisor }: Props) {
  const { money } = card.standing;
  const plug = aboutPlug(card.sheet, fight.plug);
  const isShellLeft = fight.what === "broken" && Boolean(plug?.leaves_shell);
  return (
    <Panel aria-label="It fights">
      <h2>{FIGHTS[fight.what].title}</h2>
      <ol>
        {fightSteps(fight.what, isShellLeft).map((step) => (
          <li key={step}>{step}</li>
        ))}
      </ol>
      {card.sheet.shelf.length > 0 && (
        <p>On the shelf: {card.sheet.shelf.map((one) => `${one.quantity} × ${one.what.toLowerCase()}`).join(", ")}.</p>
      )}
      {isShellLeft && <Cure minutes={card.sheet.cure_minutes} begun={state.waiting[CURE]} press={press} />}
      {money && (
        <p role="status">
          {money.over ? (
            <strong>
              It comes to {format.money(money.so_far_cents)}, above the agreed {format.money(money.limit_cents ?? 0)}:
              stop and call{card.job.phone && `, ${card.job.phone}`}.
            </strong>
          ) : (
            <>
              It comes to {format.money(money.so_far_cents)} so far; {format.money(money.limit_cents ?? 0)} is agreed.
            </>
          )}
        </p>
      )}
      {money?.over && <AskOn job={card.job.id} isAdvisor={isAdvisor} />}
    </Panel>
  );
}

/** The adhesive's clock: it is nobody's working time. */
function Cure({ minutes, begun, press }: { minutes: number; begun?: string; press: Props["press"] }) {
  const now = useNow();
  const left = begun ? minutesLeft(minutes, begun, now) : minutes;
  return (
    <Choices style={{ alignItems: "center" }}>
      {begun ? (
        <>
          <strong role="status">{left > 0 ? `${left} min of cure to go` : "It has cured"}</strong>
          <Press onPress={() => press(mark("check", { piece: CURE }))}>The cure is over</Press>
        </>
      ) : (
        <Press onPress={() => press(mark("waiting", { piece: CURE }))}>
          The cure begins: {Math.round(minutes)} min
        </Press>
      )}
    </Choices>
  );
}
