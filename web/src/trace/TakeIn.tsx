import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type TraceContent, type TracePage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { Button, Small } from "../shared/parts";
import { list } from "../shared/format";
import { codeWords, counterWords, MOMENTS, readCounters } from "./words";
import type { Tracing } from "./useTrace";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 10px 14px;
  margin: 8px 0 12px;
  .wide {
    grid-column: 1 / -1;
  }
  .codes {
    display: flex;
    gap: 10px;
    align-items: end;
    flex-wrap: wrap;
  }
`;

const SETS = [
  { id: "none", text: "no whole set" },
  { id: "coil", text: "all coils" },
  { id: "plug", text: "all plugs" },
  { id: "wire", text: "all wires" },
];

/** What the customer says, when it happens, the lamp, the codes, what others did. */
export function TakeIn({ page, tracing }: { page: TracePage; tracing: Tracing }) {
  const { content, change, bay } = tracing;
  const { shop } = useSession();
  const codes = content.codes ?? bay.codes;
  const [typed, setTyped] = useState<string | null>(null);
  const [counted, setCounted] = useState<string | null>(null);
  const written = (codes ?? []).map((row) => row.code).join(" ");
  const words = (typed ?? written)
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const wrong = words.find((code) => !/^[PBCU][0-9A-F]{4}$/.test(code));
  const set = (rest: Partial<TraceContent>) => change((old) => ({ ...old, ...rest }));
  // A code names its cylinder, its bank, and what lies over it.
  const place = (named: number | undefined) => {
    const cylinder = page.reach.cylinders.find(({ number }) => number === named);
    if (!cylinder) return "";
    const over = page.layers.filter((layer) => layer.cylinder === null && layer.over.includes(cylinder.number));
    const bank = cylinder.bank ? `, ${cylinder.bank} bank` : "";
    return over.length === 0
      ? `${bank}, open`
      : `${bank}, under ${list(over.map((layer) => layer.label.toLowerCase()))}`;
  };
  const scan = useMutation({
    mutationFn: () => api.readCodes(page.quote.id),
    onSuccess: ({ codes: read, lamp }) => set({ codes: read, lamp }),
  });
  return (
    <section aria-label="Take in">
      <Grid>
        <Field
          className="wide"
          label="In the customer's words"
          value={content.complaint ?? ""}
          onChange={(complaint) => set({ complaint })}
          maxLength={400}
          placeholder="It shakes when I pull away"
        />
        <Choice
          label="It misfires"
          value={content.when ?? null}
          options={Object.entries(MOMENTS).map(([id, text]) => ({ id, text }))}
          onPick={(id) => set({ when: id as NonNullable<TraceContent["when"]> })}
          placeholder="not known"
        />
        <Choice
          label="The lamp is"
          value={content.lamp ?? bay.lamp ?? null}
          options={["off", "steady", "blinking"].map((id) => ({ id, text: id }))}
          onPick={(id) => set({ lamp: id as NonNullable<TraceContent["lamp"]> })}
          placeholder="not known"
        />
        <div className="wide codes">
          {shop.stand_ins && (
            <Button onPress={() => scan.mutate()} isPending={scan.isPending}>
              {scan.isPending ? "Reading…" : "Read the codes"} (simulated)
            </Button>
          )}
          <Field
            label={shop.stand_ins ? "or type them" : "Codes you read (no scan tool is connected here)"}
            value={typed ?? written}
            onChange={setTyped}
            onBlur={() => {
              if (typed !== null && !wrong) set({ codes: words.map((code) => ({ code, status: "stored" as const })) });
              if (!wrong) setTyped(null);
            }}
            placeholder="P0303, or nothing"
            maxLength={80}
            problem={wrong ? `${wrong} is no code: a letter and four figures.` : undefined}
          />
          {codes !== null && codes !== undefined && codes.length === 0 && <Small>Read: none.</Small>}
        </div>
        {scan.error && (
          <p className="wide" role="alert">
            {scan.error.message}
          </p>
        )}
        {tracing.sheet.codes.map((row) => (
          <Small as="p" className="wide" key={row.code}>
            {codeWords(row)}
            {place(row.cylinder)}.
          </Small>
        ))}
        <Field
          label="Misfires counted, by cylinder"
          value={counted ?? counterWords(content.counters)}
          onChange={setCounted}
          onBlur={() => {
            const counters = counted === null ? null : readCounters(counted);
            if (counters) set({ counters });
            if (counters) setCounted(null);
          }}
          placeholder="3: 214, 1: 4"
          maxLength={160}
          problem={counted !== null && !readCounters(counted) ? "Write them as 3: 214, 1: 4." : undefined}
        />
        <Choice
          label="Equally old and weak"
          value={content.sets?.[0] ?? "none"}
          options={SETS}
          onPick={(id) => set({ sets: id === "none" ? [] : [id as "coil" | "plug" | "wire"] })}
        />
        <Field
          className="wide"
          label="What others did"
          value={content.others ?? ""}
          onChange={(others) => set({ others })}
          maxLength={400}
          placeholder="coil 3 renewed in March elsewhere"
        />
      </Grid>
    </section>
  );
}
