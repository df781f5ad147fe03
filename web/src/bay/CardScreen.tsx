import { useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import type { CardState, JobCard, Session } from "../api/client";
import { type Formatter, formatter } from "../shared/format";
import { Notice, Small } from "../shared/parts";
import { AskOn } from "./AskOn";
import { BottomBar } from "./BottomBar";
import { CardHeader } from "./CardHeader";
import { below } from "./cardWords";
import { Codes } from "./Codes";
import { Coming } from "./Coming";
import { DescentMap } from "./DescentMap";
import { FightDialog } from "./FightDialog";
import { FightPanel } from "./FightPanel";
import { Finished } from "./Finished";
import { FoundDialog } from "./FoundDialog";
import { coming, type InHand, inHand } from "./inHand";
import { InHandPanel } from "./InHandPanel";
import { mark } from "./offlineQueue";
import { LeaveDialog } from "./LeaveDialog";
import { MarksDialog } from "./MarksDialog";
import { Choices, Press } from "./parts";
import { PauseDialog } from "./PauseDialog";
import { PlugRow } from "./PlugRow";
import { Proposals } from "./Proposals";
import { SignInHere } from "./SignInHere";
import { ToFindOut } from "./ToFindOut";
import { StartPanel } from "./StartPanel";
import { useCard } from "./useCard";
import { SCHOOLS } from "./words";
import { scrolls } from "../shared/scrolls";

const Screen = styled.main`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  max-width: 1240px;
  margin: 0 auto;
  padding: 0 24px;
  font-size: 16px;
  @media (max-width: 560px) {
    padding: 0 12px;
  }
`;

const Middle = styled.div`
  ${scrolls}
  padding: 14px 0 20px;
  input,
  button {
    min-height: 44px;
  }
  display: grid;
  gap: 16px;
  align-content: start;
  @media (min-width: 1100px) {
    grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
    column-gap: 24px;
    > .wide {
      grid-column: 1 / -1;
    }
  }
`;

interface Props {
  job: string;
  session: Session;
}

/** The bay card of one job: everything of it works from what the device keeps. */
export function CardScreen({ job, session }: Props) {
  const live = useCard(job, session);
  if (live.problem)
    return (
      <Screen>
        <Notice role="alert">
          <p>{live.problem.message}</p>
          <p>
            <Link to="/bay">All jobs</Link>
          </p>
        </Notice>
      </Screen>
    );
  if (!live.card || !live.state || !session.shop)
    return <Screen aria-busy={!live.isAway}>{opening(live.isAway)}</Screen>;
  return <Card live={live} card={live.card} state={live.state} session={session} format={formatter(session.shop)} />;
}

const opening = (isAway: boolean) =>
  isAway ? "There is no connection, and this card was not opened here before." : "Opening the card…";

interface CardProps {
  live: ReturnType<typeof useCard>;
  card: JobCard;
  state: CardState;
  session: Session;
  format: Formatter;
}

type Asked = "fight" | "found" | "pause" | "marks" | "leave" | null;

function Card({ live, card, state, session, format }: CardProps) {
  const [asked, setAsked] = useState<Asked>(null);
  const [meanwhile, setMeanwhile] = useState(false);
  const navigate = useNavigate();
  const { sheet, standing, job } = card;
  const { press } = live;
  const hand = state.started_at && !state.finished_at ? inHand(sheet, state, meanwhile) : null;
  const fight = state.fights.find((one) => one.over_at === null);
  const close = () => setAsked(null);

  return (
    <Screen>
      <CardHeader card={card} state={state} handing={live} format={format} />
      <Middle>
        {live.isSignedOut && <SignInHere session={session} onSignedIn={live.handIn} />}
        {live.refused.length > 0 && (
          <Notice role="alert" className="wide">
            {live.refused.map((one) => (
              <p key={one.id}>{one.message}</p>
            ))}
            <p>
              <Press onPress={live.dismiss}>Understood</Press>
            </p>
          </Notice>
        )}
        {job.called_off_at && (
          <Notice role="alert" className="wide">
            <p>
              The customer has called this job off, {format.lately(job.called_off_at)}. Close up what is open; renew
              nothing more.
            </p>
          </Notice>
        )}
        <ToFindOut card={card} />
        <div className="wide">
          <DescentMap sheet={sheet} state={state} now={hand?.piece.id ?? null} below={below(card, state, format)} />
        </div>
        <Main
          card={card}
          state={state}
          session={session}
          format={format}
          live={live}
          hand={hand}
          fight={fight}
          meanwhile={meanwhile}
          onMeanwhile={setMeanwhile}
        />
        <div>
          <PlugRow sheet={sheet} state={state} standing={standing} now={hand?.plug?.key ?? null} format={format} />
          <Proposals card={card} format={format} isAdvisor={session.account?.role !== "technician"} />
          {hand && <Coming pieces={coming(sheet, state, hand)} />}
          <Choices>
            <Press onPress={() => void navigate("/bay")}>All jobs</Press>
            <Press onPress={() => setAsked("marks")}>Marked so far</Press>
            {session.account?.role !== "technician" && (
              <Press onPress={() => void navigate(`/quotes/${job.quote_id}/yes`)}>What was agreed</Press>
            )}
            {state.started_at && !state.finished_at && (
              <>
                <Press onPress={() => (state.paused ? press(mark("resume")) : setAsked("pause"))}>
                  {state.paused ? "Go on" : "Pause"}
                </Press>
                {hand && <Press onPress={() => setAsked("leave")}>Leave this one off</Press>}
              </>
            )}
          </Choices>
          <Schools card={card} />
        </div>
      </Middle>
      <BottomBar hand={hand} state={state} card={card} press={press} fight={fight?.id} onAsk={setAsked} />
      {asked === "fight" && hand && (
        <FightDialog hand={hand} standing={standing} phone={job.phone} format={format} press={press} onClose={close} />
      )}
      {asked === "found" && (
        <FoundDialog
          sheet={sheet}
          cylinder={hand?.piece.cylinder ?? null}
          press={press}
          onPicture={live.keepPicture}
          onClose={close}
        />
      )}
      {asked === "pause" && <PauseDialog press={press} onClose={close} />}
      {asked === "leave" && hand && <LeaveDialog piece={hand.piece} press={press} onClose={close} />}
      {asked === "marks" && (
        <MarksDialog
          sheet={sheet}
          marks={live.marks}
          undone={state.undone}
          format={format}
          press={press}
          onClose={close}
        />
      )}
    </Screen>
  );
}

interface MainProps extends CardProps {
  hand: InHand | null;
  fight: CardState["fights"][number] | undefined;
  meanwhile: boolean;
  onMeanwhile: (on: boolean) => void;
}

/** What is asked for now: the start, what fights, the piece in hand, or what is left when nothing is. */
function Main({ card, state, session, format, live, hand, fight, meanwhile, onMeanwhile }: MainProps) {
  const waits = card.sheet.pieces.some((piece) => piece.id in state.waiting);
  const codes = {
    job: card.job.id,
    quote: card.job.quote_id,
    state,
    press: live.press,
    hasTool: session.shop?.stand_ins ?? false,
  };
  if (!state.started_at) return <StartPanel card={card} format={format} onRenewed={live.renew} />;
  if (fight)
    return (
      <FightPanel
        fight={fight}
        card={card}
        state={state}
        format={format}
        press={live.press}
        isAdvisor={session.account?.role !== "technician"}
      />
    );
  if (hand)
    return (
      <div>
        {card.standing.money?.over && (
          <Notice role="alert">
            <p>
              It comes to {format.money(card.standing.money.so_far_cents)}, above the agreed{" "}
              {format.money(card.standing.money.limit_cents ?? 0)}: stop and call
              {card.job.phone && `, ${card.job.phone}`}.
            </p>
            <AskOn job={card.job.id} isAdvisor={session.account?.role !== "technician"} />
          </Notice>
        )}
        {state.paused && (
          <Notice role="status">
            <p>Paused since {format.lately(state.paused.since)}. The clock stands still.</p>
          </Notice>
        )}
        <InHandPanel
          hand={hand}
          sheet={card.sheet}
          state={state}
          standing={card.standing}
          format={format}
          press={live.press}
        />
        {(hand.piece.waiting || meanwhile) && waits && !hand.piece.overnight && (
          <Choices>
            <Press aria-pressed={meanwhile} onPress={() => onMeanwhile(!meanwhile)}>
              {meanwhile ? "Back to the wait" : "Go on with the next piece meanwhile"}
            </Press>
          </Choices>
        )}
        {CHECKS.includes(hand.piece.ref ?? "") && <Codes {...codes} />}
      </div>
    );
  return (
    <div>
      {!state.finished_at && <Codes {...codes} />}
      {!state.finished_at && card.standing.open.length > 0 && (
        <Notice role="status">
          <p>
            Open: {[...new Set(card.standing.open.map((row) => row.label ?? "what fights"))].slice(0, 6).join(", ")}.
          </p>
        </Notice>
      )}
      {state.finished_at && (
        <Finished
          card={card}
          isAdvisor={session.account?.role !== "technician"}
          isWaiting={live.waiting > 0}
          format={format}
          press={live.press}
          onRenewed={live.renew}
        />
      )}
    </div>
  );
}

const CHECKS = ["leak_check", "road_test", "scan_clear", "clear", "read"];

function Schools({ card }: { card: JobCard }) {
  const rows = card.sheet.in_force;
  if (rows)
    return (
      <details style={{ marginTop: 8, fontSize: 14 }}>
        <summary style={{ minHeight: 44, alignContent: "center" }}>
          How this house does it. Times and torques in the demo are examples; the maker&apos;s information comes first.
        </summary>
        {rows.map((row) => (
          <p key={row.setting} style={{ padding: "3px 0" }}>
            {row.question}: <strong>{row.says}</strong>. <Small>{row.why}</Small>
          </p>
        ))}
      </details>
    );
  const said = Object.entries(card.sheet.schools).map(([name, choice]) => SCHOOLS[name]?.[choice] ?? choice);
  return (
    <Small as="p" style={{ marginTop: 8 }}>
      House: {said.join(" · ")}. Times and torques in the demo are examples; the maker's information comes first.
    </Small>
  );
}
