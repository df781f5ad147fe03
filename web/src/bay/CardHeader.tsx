import styled from "styled-components";
import type { CardState, JobCard } from "../api/client";
import type { Formatter } from "../shared/format";
import { Plate, Small } from "../shared/parts";
import { handedIn, type HandingIn, pace } from "./cardWords";
import { useNow } from "./useNow";

const Head = styled.header`
  display: grid;
  grid-template: "plate title pace" auto / auto minmax(0, 1fr) auto;
  gap: 4px 18px;
  align-items: center;
  border-bottom: 2px solid var(--ink);
  padding: 12px 0;
  h1 {
    font-size: 18px;
    font-weight: 650;
  }
  > .title {
    grid-area: title;
  }
  > .pace {
    grid-area: pace;
    text-align: right;
  }
  @media (max-width: 560px) {
    grid-template:
      "plate pace" auto
      "title title" auto / auto minmax(0, 1fr);
    column-gap: 12px;
    padding: 8px 0;
  }
`;

interface Props {
  card: JobCard;
  state: CardState;
  handing: HandingIn;
  format: Formatter;
}

/** Whose card it is, when it would be ready, and whether everything of it is handed in. */
export function CardHeader({ card, state, handing, format }: Props) {
  const now = useNow();
  const { job, sheet } = card;
  const { to_go, trouble_ahead } = card.standing.time;
  return (
    <Head>
      <Plate>{job.plate}</Plate>
      <div className="title">
        <h1>{job.title}</h1>
        <Small as="p">
          {sheet.engine} · job {job.number}
          {job.technician && ` · ${job.technician}`}
          {job.bay && ` · bay ${job.bay}`}
        </Small>
      </div>
      <div className="pace">
        <strong>{pace(to_go, state, format, now)}</strong>
        {trouble_ahead >= 1 && !state.finished_at && (
          <Small as="p">{format.minutes(trouble_ahead)} min of trouble to expect with it</Small>
        )}
        <Small as="p" role="status">
          {handedIn(handing)}
        </Small>
      </div>
    </Head>
  );
}
