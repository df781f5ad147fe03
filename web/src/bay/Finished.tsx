import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type JobCard, type Mark } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { DistanceBox } from "../shared/fields/DistanceBox";
import { Field } from "../shared/fields/Field";
import { NumberBox } from "../shared/fields/NumberBox";
import type { Formatter } from "../shared/format";
import { Heading, Notice, Small } from "../shared/parts";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { title } from "./words";

interface Props {
  card: JobCard;
  isAdvisor: boolean;
  isWaiting: boolean;
  format: Formatter;
  press: (...marks: Mark[]) => void;
  onRenewed: (card: JobCard) => void;
}

/** The card when all is done: what each piece took beside what was reckoned, corrections, and the hand-over. */
export function Finished({ card, isAdvisor, isWaiting, format, press, onRenewed }: Props) {
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [km, setKm] = useState<number | null>(null);
  const over = useMutation({ mutationFn: () => api.handOver(card.job.id, km), onSuccess: onRenewed });
  const names = new Map(card.sheet.pieces.map((piece) => [piece.id, title(piece)]));
  const navigate = useNavigate();
  const actuals = card.actuals;
  return (
    <section aria-label="Finished">
      <Heading>
        <span>{card.job.handed_over_at ? "Handed over" : "Finished"}</span>
        {actuals && (
          <Small>
            {format.minutes(actuals.actual_minutes)} min hands on, {format.minutes(actuals.trouble_minutes)} of them
            trouble
          </Small>
        )}
      </Heading>
      {isAdvisor && !card.job.handed_over_at && (
        <Choices style={{ alignItems: "end" }}>
          <DistanceBox label="Odometer as it goes out" km={km} onKm={setKm} />
          <Press
            $main
            onPress={() => over.mutate()}
            isPending={over.isPending}
            isDisabled={isWaiting || !card.job.finished_at}
          >
            Hand it over
          </Press>
          {isWaiting && <Small>Some marks are not handed in yet.</Small>}
        </Choices>
      )}
      {over.error && (
        <Notice role="alert">
          <p>{over.error.message}</p>
        </Notice>
      )}
      {card.job.handed_over_at && (
        <p>
          What was done and found is with the car now.{" "}
          <a href={`/api/jobs/${card.job.id}/hand-over.pdf`}>The paper for the customer</a>
        </p>
      )}
      {isAdvisor && (
        <Choices>
          <Press onPress={() => void navigate(`/bills/${card.job.id}`)}>The bill</Press>
        </Choices>
      )}
      {actuals && (
        <table>
          <thead>
            <tr>
              <th style={{ textAlign: "left" }}>Piece</th>
              <th style={{ textAlign: "right" }}>reckoned</th>
              <th style={{ textAlign: "right" }}>took</th>
              <th aria-label="Correct" />
            </tr>
          </thead>
          <tbody>
            {actuals.pieces.map((piece) => (
              <tr key={piece.id} style={{ borderBottom: "1px solid var(--rule)" }}>
                <td>{names.get(piece.id) ?? piece.id}</td>
                <td style={{ textAlign: "right" }}>{format.minutes(piece.estimate)}</td>
                <td style={{ textAlign: "right" }}>{piece.actual === null ? "–" : format.minutes(piece.actual)}</td>
                <td style={{ textAlign: "right" }}>
                  {!card.job.handed_over_at && (
                    <Press
                      style={{ minHeight: 44, fontSize: 15 }}
                      aria-label={`Correct the time of ${names.get(piece.id) ?? piece.id}`}
                      onPress={() => setCorrecting(piece.id)}
                    >
                      Correct
                    </Press>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {correcting && (
        <Correct
          name={names.get(correcting) ?? correcting}
          onClose={() => setCorrecting(null)}
          onSet={(minutes, why) => {
            press(mark("correct", { piece: correcting, minutes, why }));
            setCorrecting(null);
          }}
        />
      )}
    </section>
  );
}

interface CorrectProps {
  name: string;
  onSet: (minutes: number, why: string) => void;
  onClose: () => void;
}

function Correct({ name, onSet, onClose }: CorrectProps) {
  const [minutes, setMinutes] = useState<number | null>(null);
  const [why, setWhy] = useState("");
  return (
    <Dialog title={`Minutes of: ${name}`} onClose={onClose}>
      <NumberBox label="It took, minutes" value={minutes} onValue={setMinutes} least={0} autoFocus />
      <Field label="Because" value={why} onChange={setWhy} maxLength={120} />
      <Choices>
        <Press
          $main
          isDisabled={minutes === null || why.trim() === ""}
          onPress={() => minutes !== null && onSet(minutes, why.trim())}
        >
          Set it
        </Press>
        <Small>What was measured stays on the card beside it.</Small>
      </Choices>
    </Dialog>
  );
}
