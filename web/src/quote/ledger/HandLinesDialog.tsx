import { type FormEvent, useState } from "react";
import styled from "styled-components";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { Choice } from "../../shared/fields/Choice";
import { Field } from "../../shared/fields/Field";
import { MoneyBox } from "../../shared/fields/MoneyBox";
import { NumberBox } from "../../shared/fields/NumberBox";
import { Asked, Button, Small, Unseen } from "../../shared/parts";
import { asKind, blank, COUNTED, type EnteredLine, handLine, type HandLine, type LineProblems } from "./handLines";

const MOST = 40;

const Rows = styled.ul`
  list-style: none;
  margin: 0 0 14px;
  padding: 0;
  li {
    display: flex;
    gap: 14px;
    align-items: baseline;
    justify-content: space-between;
    border-bottom: 1px solid var(--rule);
    padding: 5px 0;
  }
  .what {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .acts {
    white-space: nowrap;
    display: flex;
    gap: 14px;
  }
`;
const Grid = styled.div`
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr) 90px 130px;
  gap: 14px;
  margin-bottom: 14px;
  align-items: start;
  @media (max-width: 640px) {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
`;

interface Props {
  lines: HandLine[];
  /** What the shop's hour costs here; null where nothing is priced. */
  rateCents: number | null;
  /** Words for a line that somebody already named: what was found in the bay. */
  named?: string;
  onLines: (lines: HandLine[]) => void;
  onClose: () => void;
}

/** Other work and free parts on the quote, beside what the engine's profile knows. */
export function HandLinesDialog({ lines, rateCents, named, onLines, onClose }: Props) {
  const { format } = useSession();
  const [typed, setTyped] = useState<EnteredLine>({ ...blank(rateCents), label: named ?? "" });
  const [at, setAt] = useState<number | null>(null);
  const [problems, setProblems] = useState<LineProblems>({});
  const enter =
    <K extends keyof EnteredLine>(key: K) =>
    (value: EnteredLine[K]) =>
      setTyped((now) => ({ ...now, [key]: value }));
  const anew = () => {
    setTyped(blank(rateCents));
    setAt(null);
  };
  const put = (event: FormEvent) => {
    event.preventDefault();
    const made = handLine(typed);
    setProblems(made.problems);
    const { line } = made;
    if (!line) return;
    onLines(at === null ? [...lines, line] : lines.map((old, i) => (i === at ? line : old)));
    anew();
  };
  const change = (line: HandLine, index: number) => {
    setTyped({ label: line.label, class: line.class, quantity: line.quantity, each: line.each_cents });
    setAt(index);
    setProblems({});
  };
  const full = at === null && lines.length >= MOST;
  const counted = COUNTED[typed.class];

  return (
    <Dialog title="Other work, and parts by hand" onClose={onClose} wide>
      {lines.length > 0 && (
        <Rows aria-label="By hand so far">
          {lines.map((line, index) => (
            <li key={`${index}-${line.label}`}>
              <span className="what">
                {line.label}{" "}
                <Small>
                  {format.figure(line.quantity)} {line.class === "labor" ? "h " : ""}× {format.money(line.each_cents)}
                </Small>
              </span>
              <span className="acts">
                <Asked onPress={() => change(line, index)}>
                  Change<Unseen> {line.label}</Unseen>
                </Asked>
                <Asked
                  onPress={() => {
                    onLines(lines.filter((_, i) => i !== index));
                    anew();
                  }}
                >
                  Take off<Unseen> {line.label}</Unseen>
                </Asked>
              </span>
            </li>
          ))}
        </Rows>
      )}
      <form onSubmit={put} noValidate>
        <Grid>
          <Choice
            label="Kind"
            value={typed.class}
            options={(Object.keys(COUNTED) as HandLine["class"][]).map((id) => ({ id, text: COUNTED[id].name }))}
            onPick={(kind) => setTyped((now) => asKind(now, kind as HandLine["class"], rateCents))}
          />
          <Field
            label="What it is"
            value={typed.label}
            onChange={enter("label")}
            problem={problems.label}
            placeholder="as the customer reads it"
            maxLength={120}
            autoFocus
          />
          <NumberBox
            label={counted.unit}
            value={typed.quantity}
            onValue={enter("quantity")}
            decimals={2}
            least={0}
            problem={problems.quantity}
          />
          <MoneyBox label={counted.each} cents={typed.each} onCents={enter("each")} problem={problems.each} />
        </Grid>
        <p style={{ display: "flex", gap: 10, alignItems: "center", flexWrap: "wrap" }}>
          <Button $main type="submit" isDisabled={full}>
            {at === null ? "Put on the quote" : "Keep the change"}
          </Button>
          <Button onPress={onClose}>Done</Button>
          <Small>
            {full
              ? `A quote takes ${MOST} lines by hand.`
              : "Taxed by its kind, on card, paper and bill as it stands here. Nothing is learned from it."}
          </Small>
        </p>
      </form>
    </Dialog>
  );
}
