import { useState } from "react";
import styled from "styled-components";
import type { TraceSheet } from "../api/client";
import { Choice } from "../shared/fields/Choice";
import { LiveNumber } from "../shared/fields/LiveNumber";
import { Button, Heading, KeyHint, Small } from "../shared/parts";
import type { Tracing } from "./useTrace";
import { causeWords, doneWords, inHundred, isNoProof, outcomeWords, testWords } from "./words";

const Rows = styled.ol`
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    display: grid;
    grid-template-columns: 22px minmax(0, 1fr) auto auto;
    gap: 10px;
    align-items: baseline;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
  .did {
    font-weight: 650;
    text-align: right;
    white-space: nowrap;
  }
`;
const Other = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 10px;
  align-items: end;
  margin: 8px 0 12px;
  @media (max-width: 760px) {
    grid-template-columns: 1fr 1fr;
  }
`;

interface Props {
  tracing: Tracing;
  cylinders: number[];
  isAdding: boolean;
  onAdding: (on: boolean) => void;
}

/** What is known, line by line, and what each did to the suspect that leads. */
export function Known({ tracing, cylinders, isAdding, onAdding }: Props) {
  const { sheet, bay, content, change } = tracing;
  const lead = sheet.hypotheses[0];
  const own = content.evidence ?? [];
  const name = (row: TraceSheet["evidence"][number]) => {
    if (row.from === "codes") return content.codes || bay.codes ? "Codes, and where there are none" : null;
    if (row.from === "when") return content.when ? "When it misfires" : null;
    if (row.from === "counters") return "Misfires counted for each cylinder";
    return doneWords({ test: row.test ?? "", cylinder: row.cylinder ?? 0, with: row.with, outcome: row.outcome ?? "" });
  };
  const unproven = own.map((one, at) => ({ one, at })).filter(({ one }) => isNoProof(one));
  const rows = sheet.evidence.map((row) => ({ row, said: name(row) })).filter(({ said }) => said !== null);
  const place = (row: TraceSheet["evidence"][number]) =>
    own
      .map((one) => doneWords(one))
      .lastIndexOf(
        doneWords({ test: row.test ?? "", cylinder: row.cylinder ?? 0, with: row.with, outcome: row.outcome ?? "" }),
      );
  return (
    <section aria-label="What we know">
      <Heading>
        <span>What we know, and what it did</span>
        {lead && (
          <Small>
            to {causeWords(lead)} {lead.cause === "elsewhere" ? "" : lead.cylinders.join(" and ")}
          </Small>
        )}
      </Heading>
      <Rows>
        {rows.length === 0 && (
          <li>
            <span /> Nothing yet: the codes come first.
          </li>
        )}
        {rows.map(({ row, said }, i) => {
          const at = place(row);
          return (
            <li key={i}>
              <Small>{i + 1}</Small>
              <span>
                {said}
                {row.from === "test" && at < 0 && <Small> from the card</Small>}
              </span>
              <span className="did">
                {inHundred(row.before)} → {inHundred(row.after)}
              </span>
              {at >= 0 ? (
                <Button
                  aria-label={`Take back: ${said}`}
                  onPress={() =>
                    change((old) => ({ ...old, evidence: (old.evidence ?? []).filter((_, j) => j !== at) }))
                  }
                >
                  ✕
                </Button>
              ) : (
                <span />
              )}
            </li>
          );
        })}
        {unproven.map(({ one, at }) => (
          <li key={`unproven ${at}`}>
            <span />
            <span>
              {doneWords(one)} <Small>no proof: it was not run the way it misfires</Small>
            </span>
            <span className="did">–</span>
            <Button
              aria-label={`Take back: ${doneWords(one)}, no proof`}
              onPress={() => change((old) => ({ ...old, evidence: (old.evidence ?? []).filter((_, j) => j !== at) }))}
            >
              ✕
            </Button>
          </li>
        ))}
      </Rows>
      {isAdding ? (
        <Something tracing={tracing} cylinders={cylinders} onDone={() => onAdding(false)} />
      ) : (
        <Button onPress={() => onAdding(true)}>
          Something else <KeyHint>E</KeyHint>
        </Button>
      )}
    </section>
  );
}

interface SomethingProps {
  tracing: Tracing;
  cylinders: number[];
  onDone: () => void;
}

/** A test that was done without being asked for. */
function Something({ tracing, cylinders, onDone }: SomethingProps) {
  const [test, setTest] = useState<string | null>(null);
  const [cylinder, setCylinder] = useState<number | null>(null);
  const [partner, setPartner] = useState<number | null>(null);
  const [outcome, setOutcome] = useState<string | null>(null);
  const [minutes, setMinutes] = useState<number | null>(null);
  const [run, setRun] = useState<"as-it-misfires" | "otherwise">("as-it-misfires");
  const swap = test?.startsWith("swap-") ?? false;
  const numbers = cylinders.map((number) => ({ id: String(number), text: String(number) }));
  const ready = test && cylinder && outcome && (!swap || partner);
  const words = (id: string) => testWords({ test: id, cylinder: 0 }).replace(/ (of )?0( with another)?$/, "");
  return (
    <Other role="group" aria-label="Something else">
      <Choice
        label="What was done"
        value={test}
        options={Object.keys(tracing.sheet.outcomes).map((id) => ({ id, text: words(id) }))}
        onPick={(id) => {
          setTest(id);
          setOutcome(null);
        }}
        placeholder="test"
      />
      <Choice
        label="At cylinder"
        value={cylinder === null ? null : String(cylinder)}
        options={numbers}
        onPick={(id) => setCylinder(Number(id))}
        placeholder="number"
      />
      <Choice
        label="With"
        value={partner === null ? null : String(partner)}
        options={numbers.filter((one) => one.id !== String(cylinder))}
        onPick={(id) => setPartner(Number(id))}
        placeholder={swap ? "number" : "–"}
        isDisabled={!swap}
      />
      <Choice
        label="It showed"
        value={outcome}
        options={(test ? (tracing.sheet.outcomes[test] ?? []) : []).map((id) => ({
          id,
          text: outcomeWords(test ?? "", id),
        }))}
        onPick={setOutcome}
        placeholder="outcome"
        isDisabled={!test}
      />
      {swap && outcome === "none" && (
        <Choice
          label="It was run"
          value={run}
          options={[
            { id: "as-it-misfires", text: "the way it misfires" },
            { id: "otherwise", text: "otherwise" },
          ]}
          onPick={(id) => setRun(id as "as-it-misfires" | "otherwise")}
        />
      )}
      <LiveNumber label="Minutes" value={minutes} onValue={setMinutes} />
      <Button
        isDisabled={!ready}
        onPress={() => {
          if (!ready) return;
          const done = {
            test,
            cylinder,
            outcome,
            ...(swap && partner ? { with: partner } : {}),
            ...(swap && outcome === "none" ? { run } : {}),
            ...(minutes === null ? {} : { minutes }),
          };
          tracing.change((old) => ({ ...old, evidence: [...(old.evidence ?? []), done] }));
          onDone();
        }}
      >
        Write it down
      </Button>
    </Other>
  );
}
