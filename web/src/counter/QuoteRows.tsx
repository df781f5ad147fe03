import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type QuoteCard } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Asked, Mono, Notice, Small, Unseen } from "../shared/parts";
import { PressRows } from "./rows";
import { mayBePutAway, nextAct, stageWords } from "./stage";

interface Props {
  quotes: QuoteCard[];
  /** All of one car: its plate and owner are said already. */
  ofOneCar?: boolean;
}

/** Quotes, each with how far it has come, what is next, and a way off the list that is taken back with one press. */
export function QuoteRows({ quotes, ofOneCar }: Props) {
  const { account, format } = useSession();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [away, setAway] = useState<QuoteCard | null>(null);
  const shelve = useMutation({
    mutationFn: (quote: QuoteCard) => (quote.put_away ? api.bringBack(quote.id) : api.putAway(quote.id)),
    onSuccess: (fresh) => {
      setAway(fresh.put_away ? fresh : null);
      ["find", "car-file", "counter"].forEach((key) => void queries.invalidateQueries({ queryKey: [key] }));
    },
  });
  const writes = account.role !== "technician";

  return (
    <>
      {away && (
        <Notice role="status" style={{ marginTop: 6 }}>
          <p>
            Quote {away.number} for {away.plate} is put away; a search still finds it.{" "}
            <Asked onPress={() => shelve.mutate(away)}>Bring it back</Asked>
          </p>
        </Notice>
      )}
      {shelve.error && (
        <Notice role="alert" style={{ marginTop: 6 }}>
          <p>{shelve.error.message}</p>
        </Notice>
      )}
      <PressRows>
        {quotes.map((quote) => {
          const next = quote.put_away ? null : nextAct(quote);
          return (
            <li key={quote.id} data-acts="" data-away={quote.put_away ? "" : undefined}>
              <button type="button" onClick={() => void navigate(`/quotes/${quote.id}`)}>
                <Unseen>{`Open quote ${quote.number} for `}</Unseen>
                <Mono>{ofOneCar ? `Quote ${quote.number}` : quote.plate}</Mono>
                <span className="clip">{quote.summary || "Not saved yet"}</span>
                <span className="figure">{quote.total_cents === null ? "" : format.money(quote.total_cents)}</span>
                <Small className="sub">
                  {!ofOneCar && `${quote.customer ? `${quote.customer} · ` : ""}Quote ${quote.number} · `}
                  {quote.put_away ? "put away" : stageWords(quote, format)}
                </Small>
              </button>
              <Small className="acts">
                {next && (
                  <Link to={next.to}>
                    {next.word} <Unseen>of quote {quote.number}</Unseen>
                  </Link>
                )}
                {writes && (quote.put_away || mayBePutAway(quote)) && (
                  <Asked onPress={() => shelve.mutate(quote)}>
                    {quote.put_away ? "Bring back" : "Put away"} <Unseen>quote {quote.number}</Unseen>
                  </Asked>
                )}
              </Small>
            </li>
          );
        })}
      </PressRows>
    </>
  );
}
