import { useState } from "react";
import type { LedgerPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { Asked, Heading, Small } from "../shared/parts";
import { Rows } from "./Rows";
import type { Behind } from "./LedgerRoute";
import { costWords, dearest, monthWords, protocolName, protocolWords, stepCostWords, stepWords } from "./words";

type Learned = NonNullable<LedgerPage["learned"]>;
const BY = ["engine", "step", "month", "soak"] as const;
type By = (typeof BY)[number];
const MOST = 7;

/** What costs most: by engine, step, month or soak; a figure opens the jobs behind it. */
export function CostsMost({ learned, onBehind }: { learned: Learned; onBehind: (behind: Behind) => void }) {
  const { format } = useSession();
  const [by, setBy] = useState<By>("engine");
  return (
    <section aria-label="What costs most">
      <Heading style={{ alignItems: "center" }}>
        <span>What costs most</span>
        <span style={{ width: 118 }}>
          <Choice
            label="By"
            bare
            value={by}
            options={BY.map((id) => ({ id, text: `by ${id}` }))}
            onPick={(id) => setBy(id as By)}
          />
        </span>
      </Heading>
      <Rows>
        {by === "engine" &&
          dearest(learned.engines)
            .slice(0, MOST)
            .map((row) => (
              <div key={row.name}>
                <dt>
                  <Asked onPress={() => onBehind({ engine: row.name })}>{row.name}</Asked>
                </dt>
                <dd>{row.too_few ? "" : format.signed(-row.beyond_cents)}</dd>
                <dd className="said">{costWords(row, format)}</dd>
              </div>
            ))}
        {by === "step" &&
          learned.tasks.slice(0, MOST).map((row) => (
            <div key={`${row.engine}-${row.task}`}>
              <dt>
                <Asked onPress={() => onBehind({ engine: row.engine })}>{stepWords(row)}</Asked>
              </dt>
              <dd>{format.hours(row.minutes_lost / 60)} h</dd>
              <dd className="said">{stepCostWords(row, format)}</dd>
            </div>
          ))}
        {by === "month" &&
          [...learned.months]
            .reverse()
            .slice(0, 12)
            .map((row) => (
              <div key={row.name}>
                <dt>
                  <Asked onPress={() => onBehind({ month: row.name })}>{format.month(row.name)}</Asked>
                </dt>
                <dd>{format.signed(-row.beyond_cents)}</dd>
                <dd className="said">{monthWords(row, format)}</dd>
              </div>
            ))}
        {by === "soak" &&
          learned.protocols.map((row) => (
            <div key={`${row.construction}-${row.soak}`}>
              <dt>{protocolName(row)}</dt>
              <dd>
                {row.broken} of {row.plugs} broke
              </dd>
              <dd className="said">{protocolWords(row)}</dd>
            </div>
          ))}
      </Rows>
      {learned.against_guide && (
        <Small as="p" style={{ marginBottom: 14 }}>
          Printed guide: ours were nearer in {learned.against_guide.ours_nearer} of {learned.against_guide.jobs} jobs.
        </Small>
      )}
    </section>
  );
}
