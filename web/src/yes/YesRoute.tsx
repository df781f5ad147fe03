import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import { api, type NewOffer, type Offer, type OfferAnswer, type YesPage } from "../api/client";
import { useLive } from "../live/useLive";
import { useSession } from "../session/SessionGate";
import { useKeys } from "../shared/keys";
import { Opened } from "../shared/Opened";
import { Button, Heading, KeyHint, LoneLink, Notice, Plate, Small } from "../shared/parts";
import { JobOff, TakeBack, type TakenBack } from "./TakeBack";
import { Offering } from "./Offering";
import { OfferSheet } from "./OfferSheet";
import { Preview } from "./Preview";
import { waiting } from "./words";

const Screen = styled.main`
  min-height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 426px;
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Left = styled.div`
  padding: 16px 26px 40px;
  min-width: 0;
  > header {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 12px;
  }
  h1 {
    font-size: 22px;
    font-weight: 650;
  }
  .back {
    margin-left: auto;
  }
`;

/** The yes of a quote: what is offered to whom, the words for the phone, the customer's page, what was agreed. */
export function YesRoute() {
  const { id = "" } = useParams();
  useLive();
  const page = useQuery({ queryKey: ["yes", id], queryFn: () => api.yes(id), staleTime: 0 });
  return (
    <Opened page={page} what="the offer">
      {(data) => <YesScreen page={data} />}
    </Opened>
  );
}

function YesScreen({ page }: { page: YesPage }) {
  const { account } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const writes = account.role !== "technician";
  const { quote, vehicle, proposal, offers } = page;
  const taken = {
    onSuccess: (fresh: YesPage) => {
      queries.setQueryData(["yes", quote.id], fresh);
      void queries.invalidateQueries({ queryKey: ["counter"] });
    },
    onError: () => void queries.invalidateQueries({ queryKey: ["yes", quote.id] }),
  };
  const offer = useMutation({
    mutationFn: (given: NewOffer) => api.offer(quote.id, given, crypto.randomUUID()),
    ...taken,
  });
  const answer = useMutation({
    mutationFn: ({ id, said }: { id: string; said: OfferAnswer }) => api.answerOffer(id, said, crypto.randomUUID()),
    ...taken,
  });
  const act = useMutation({ mutationFn: (run: () => Promise<YesPage>) => run(), ...taken });
  useKeys([{ key: ".", hint: ".", label: "Back to the quote", run: () => void navigate(`/quotes/${quote.id}`) }]);

  const current = waiting(offers);
  const newest = offers[0];
  const fresh = proposal && (!newest || newest.revision < proposal.revision || isOver(newest));
  const [again, setAgain] = useState(false);
  const [taking, setTaking] = useState<TakenBack | null>(null);
  const problem = answer.error ?? act.error;
  const sheet = (one: (typeof offers)[number]) => (
    <OfferSheet
      key={one.id}
      offer={one}
      writes={writes}
      mayStrike={writes && page.job?.handed_over === false}
      isPending={answer.isPending || act.isPending}
      onAnswer={(said) => answer.mutate({ id: one.id, said })}
      onRevoke={() => act.mutate(() => api.revokeOffer(one.id))}
      onRetry={() => act.mutate(() => api.retryOffer(one.id))}
      onStrike={(position) => setTaking({ offer: one.id, position })}
      onSettle={(question) => act.mutate(() => api.settleQuestion(question))}
    />
  );

  return (
    <Screen>
      <Left>
        <header>
          <Plate>{vehicle.plate}</Plate>
          <h1>{vehicle.customer ?? "No owner noted"}</h1>
          <Small>
            Quote {quote.number} · {vehicle.description}
            {page.provisional && " · provisional: engine only sketched"}
            {page.job && (
              <>
                {" "}
                · <Link to={`/bay/${page.job.id}`}>job {page.job.number}</Link>
              </>
            )}
          </Small>
          <Link className="back" to={`/quotes/${quote.id}`}>
            The quote <KeyHint>.</KeyHint>
          </Link>
        </header>
        {page.job && (
          <JobOff
            job={page.job}
            writes={writes}
            isPending={act.isPending}
            onCallOff={() => setTaking("job")}
            onTakeUp={(job) => act.mutate(() => api.takeUp(job))}
          />
        )}
        {problem && (
          <Notice role="alert" style={{ marginTop: 14 }}>
            <p>{problem.message}</p>
          </Notice>
        )}
        {!proposal && (
          <Notice style={{ marginTop: 18 }}>
            <p>Nothing is saved yet. Save the quote; what is saved can be offered.</p>
          </Notice>
        )}
        {proposal && (fresh || (again && current)) && writes && (
          <Offering
            key={proposal.revision}
            page={page}
            proposal={proposal}
            replaces={current?.recipient}
            isPending={offer.isPending}
            problem={offer.error}
            onOffer={(given) => offer.mutate(given, { onSuccess: () => setAgain(false) })}
          />
        )}
        {offers.length > 0 && (
          <Heading style={{ margin: "22px 0 10px" }}>
            <span>{current ? "Waiting for a yes" : "What was offered"}</span>
          </Heading>
        )}
        {offers.map(sheet)}
        {!fresh && !again && current && proposal && writes && (
          <p style={{ marginTop: 16 }}>
            <Button onPress={() => setAgain(true)}>Send it another way</Button>{" "}
            <Small>The link, a text, a mail or paper in place of what went out.</Small>
          </p>
        )}
        {offers.length > 0 && writes && (
          <p>
            <Small>
              <LoneLink href={`/api/quotes/${quote.id}/export`} download={`quote-${quote.number}.json`}>
                All of this quote as a file
              </LoneLink>
            </Small>
          </p>
        )}
        {!fresh && proposal && writes && newest && !current && newest.state !== "authorized" && (
          <Button onPress={() => void navigate(`/quotes/${quote.id}`)}>
            Back to the quote, to offer something else
          </Button>
        )}
      </Left>
      {taking && page.job && (
        <TakeBack
          what={taking}
          job={page.job}
          isPending={act.isPending}
          problem={act.error}
          onDo={(run) => act.mutate(run, { onSuccess: () => setTaking(null) })}
          onClose={() => setTaking(null)}
        />
      )}
      {proposal && (
        <Preview
          quote={quote.id}
          version={`${proposal.revision} ${newest?.id ?? ""} ${newest?.state ?? ""} ${newest?.revoked_at ?? ""}`}
          link={newest?.link}
        />
      )}
    </Screen>
  );
}

/** Whether it can be offered again as it is: it has lapsed, or the yes to it was struck. */
const isOver = (offer: Offer) => offer.state === "expired" || offer.scopes.some((scope) => scope.struck);
