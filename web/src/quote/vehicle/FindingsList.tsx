import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type Finding, type QuotePage } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Choice } from "../../shared/fields/Choice";
import { Field } from "../../shared/fields/Field";
import { Button, Heading, Notice, Small, Strong, Unseen } from "../../shared/parts";
import { KINDS, said } from "./findings";

const Rows = styled.ul`
  list-style: none;
  margin: 6px 0 10px;
  padding: 0;
  border-top: 1px solid var(--strong);
  font-size: 14px;
  li {
    display: grid;
    grid-template-columns: 36px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
  }
`;
const Add = styled.div`
  display: grid;
  grid-template-columns: 110px minmax(0, 190px) minmax(0, 1fr) auto;
  gap: 10px 14px;
  align-items: end;
  margin-bottom: 14px;
  @media (max-width: 600px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const WHOLE = "car";

interface Props {
  page: QuotePage;
  isDisabled: boolean;
}

/** What earlier visits found, at its cylinder, until somebody settles it; it comes up with every quote of the car. */
export function FindingsList({ page, isDisabled }: Props) {
  const queries = useQueryClient();
  const { format } = useSession();
  const [place, setPlace] = useState(WHOLE);
  const [kind, setKind] = useState<Finding["kind"] | null>(null);
  const [words, setWords] = useState("");
  const key = ["quote", page.quote.id];
  const keep = ({ findings }: { findings: Finding[] }) =>
    queries.setQueryData<QuotePage>(key, (now) => now && { ...now, findings });
  const note = useMutation({
    mutationFn: (chosen: Finding["kind"]) =>
      api.noteFinding(page.vehicle.id, { kind: chosen, words, cylinder: place === WHOLE ? null : Number(place) }),
    onSuccess: (found) => {
      keep(found);
      setWords("");
      setKind(null);
    },
  });
  const settle = useMutation({
    mutationFn: (id: string) => api.settleFinding(page.vehicle.id, id),
    onSuccess: keep,
  });
  const numbers = page.sheet.reach.cylinders.map((cylinder) => cylinder.number).sort((a, b) => a - b);
  const problem = note.error ?? settle.error;

  return (
    <section aria-label="Found at earlier visits" aria-busy={note.isPending || settle.isPending}>
      <Heading>
        <span>Found at earlier visits</span>
        <Small>{page.findings.length === 0 ? "nothing open" : "open until settled"}</Small>
      </Heading>
      <Rows>
        {page.findings.map((finding) => (
          <li key={finding.id}>
            <Strong>{finding.cylinder ?? "car"}</Strong>
            <span>
              {said(finding)}{" "}
              <Small>
                {format.when(finding.at)}
                {finding.by && `, ${finding.by}`}
              </Small>
            </span>
            {!isDisabled && (
              <Button onPress={() => settle.mutate(finding.id)} isPending={settle.isPending}>
                Settled<Unseen>: {said(finding)}</Unseen>
              </Button>
            )}
          </li>
        ))}
      </Rows>
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
      {!isDisabled && (
        <Add>
          <Choice
            label="Where"
            value={place}
            options={[
              { id: WHOLE, text: "the car" },
              ...numbers.map((n) => ({ id: String(n), text: `cylinder ${n}` })),
            ]}
            onPick={setPlace}
          />
          <Choice
            label="Found"
            value={kind}
            placeholder="choose"
            options={Object.entries(KINDS).map(([id, text]) => ({
              id,
              text: id === "other" ? "something else" : text,
            }))}
            onPick={(id) => setKind(id as Finding["kind"])}
          />
          <Field label="In words" value={words} onChange={setWords} maxLength={200} placeholder="who, when, what" />
          <Button onPress={() => kind && note.mutate(kind)} isDisabled={!kind} isPending={note.isPending}>
            Note it
          </Button>
        </Add>
      )}
    </section>
  );
}
