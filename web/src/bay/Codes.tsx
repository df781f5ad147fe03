import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type CardState, type Mark } from "../api/client";
import { Field } from "../shared/fields/Field";
import { list } from "../shared/format";
import { Notice, Small } from "../shared/parts";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";

type Read = NonNullable<Mark["codes"]>;

interface Props {
  job: string;
  /** Whose trace the codes go to. */
  quote: string;
  state: CardState;
  press: (...marks: Mark[]) => void;
  /** Whether a scan tool answers: the demo's, which makes codes up. */
  hasTool: boolean;
}

/** Codes read again, through the tool or typed; what a permanent one means. */
export function Codes({ job, quote, state, press, hasTool }: Props) {
  const [typed, setTyped] = useState("");
  const keep = (codes: Read, lamp: NonNullable<Mark["lamp"]>) =>
    press(mark("codes", { codes, lamp, again: state.codes.length > 0 }));
  const scan = useMutation({ mutationFn: () => api.scan(job), onSuccess: (found) => keep(found.codes, found.lamp) });
  const last = state.codes.at(-1);
  const counted = Object.entries(scan.data?.misfires ?? {}).filter(([, count]) => count > 0);
  const stored = last?.codes.filter((one) => one.status !== "permanent") ?? [];
  const permanent = last?.codes.filter((one) => one.status === "permanent") ?? [];
  const words = typed
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const wrong = words.find((code) => !/^[PBCU][0-9A-F]{4}$/.test(code));
  return (
    <section aria-label="Codes" style={{ marginTop: 14 }}>
      <Choices style={{ alignItems: "end" }}>
        {hasTool && (
          <Press onPress={() => scan.mutate()} isPending={scan.isPending}>
            {scan.isPending ? "Reading…" : last ? "Read the codes again" : "Read the codes"} (simulated)
          </Press>
        )}
        <Field
          label={hasTool ? "or type them" : "Codes you read (no scan tool is connected here)"}
          value={typed}
          onChange={setTyped}
          placeholder="P0303, or nothing"
          problem={wrong ? `${wrong} is no code: a letter and four figures.` : undefined}
          maxLength={80}
        />
        <Press
          onPress={() => {
            keep(
              words.map((code) => ({ code, status: "stored" as const })),
              words.length > 0 ? "steady" : "off",
            );
            setTyped("");
          }}
          isDisabled={Boolean(wrong)}
        >
          Keep
        </Press>
      </Choices>
      {scan.error && (
        <Notice role="alert">
          <p>{scan.error.message}</p>
        </Notice>
      )}
      {last && (
        <div role="status" style={{ fontSize: 17 }}>
          {last.codes.length === 0 && <p>No codes, lamp {last.lamp}.</p>}
          {stored.length > 0 && (
            <p>
              <strong>{list(stored.map((one) => `${one.code} ${one.status}`))}</strong>, lamp {last.lamp}.
              {state.codes.length > 1 && " It comes back. "}
              {quote && <Link to={`/quotes/${quote}/trace`}>Find the fault with what is known</Link>}
            </p>
          )}
          {permanent.length > 0 && (
            <p>
              {list(permanent.map((one) => one.code))} stays as permanent: the car clears it itself over its next
              drives. It does not say that the repair failed.
            </p>
          )}
          {counted.length > 0 && (
            <p>Misfires counted: {list(counted.map(([cylinder, count]) => `${count} at cylinder ${cylinder}`))}.</p>
          )}
          {last.lamp === "blinking" && <p>The lamp blinks: do not drive it.</p>}
          <Small>
            {state.codes.length} reading{state.codes.length === 1 ? "" : "s"} on this card
          </Small>
        </div>
      )}
    </section>
  );
}
