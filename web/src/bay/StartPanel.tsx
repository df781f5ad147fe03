import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type JobCard } from "../api/client";
import { Field } from "../shared/fields/Field";
import type { Formatter } from "../shared/format";
import { Notice, Small } from "../shared/parts";
import { LayOut } from "./LayOut";
import { Choices, Press } from "./parts";
import { useNow } from "./useNow";

const WARM: [NonNullable<JobCard["job"]["arrival"]>, string][] = [
  ["cold", "cold"],
  ["warm", "warm"],
  ["hot", "hot, just driven"],
];

interface Props {
  card: JobCard;
  format: Formatter;
  onRenewed: (card: JobCard) => void;
}

/** Before the first press: who does it and where, how warm the engine came, when it is cold, what lies ready. */
export function StartPanel({ card, format, onRenewed }: Props) {
  const { job, sheet } = card;
  const [bay, setBay] = useState(job.bay);
  const give = useMutation({
    mutationFn: (given: Parameters<typeof api.giveJob>[1]) => api.giveJob(job.id, given),
    onSuccess: onRenewed,
  });
  const now = useNow();
  const cold = job.cold_at ? Date.parse(job.cold_at) > now : false;
  return (
    <section
      aria-label="Before the start"
      style={{ border: "1.4px solid var(--ink)", borderRadius: 14, background: "var(--sheet)", padding: "16px 20px" }}
    >
      <h2 style={{ fontSize: 28, fontWeight: 650 }}>
        {cold ? `Cold at ${format.lately(job.cold_at ?? "")}` : "Before the start"}
      </h2>
      <p style={{ marginTop: 8 }}>How warm did it come?</p>
      <Choices role="group" aria-label="How warm did it come?">
        {WARM.map(([code, words]) => (
          <Press
            key={code}
            aria-pressed={job.arrival === code}
            data-chosen={job.arrival === code || undefined}
            onPress={() => give.mutate({ arrival: code })}
          >
            {words}
          </Press>
        ))}
      </Choices>
      <p>Who does it?</p>
      <Choices role="group" aria-label="Who does it?">
        {card.technicians.map((person) => (
          <Press
            key={person.id}
            aria-pressed={job.technician_id === person.id}
            data-chosen={job.technician_id === person.id || undefined}
            onPress={() => give.mutate({ technician_id: person.id })}
          >
            {person.name}
          </Press>
        ))}
      </Choices>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          give.mutate({ bay });
        }}
      >
        <Choices style={{ alignItems: "end" }}>
          <Field label="Bay" value={bay} onChange={setBay} maxLength={40} />
          <Press type="submit" isDisabled={bay.trim() === job.bay} isPending={give.isPending}>
            Set
          </Press>
        </Choices>
      </form>
      {give.error && (
        <Notice role="alert">
          <p>{give.error.message}</p>
        </Notice>
      )}
      <LayOut sheet={sheet} />
      {sheet.shelf.length > 0 && (
        <p>On the shelf first: {sheet.shelf.map((one) => `${one.quantity} × ${one.what.toLowerCase()}`).join(", ")}.</p>
      )}
      <Small as="p">Engine cold before plugs are touched. Key out before coils are.</Small>
    </section>
  );
}
