import { type FormEvent, useState } from "react";
import styled from "styled-components";
import type { Estimate, Scope } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { Field } from "../../shared/fields/Field";
import { MoneyBox } from "../../shared/fields/MoneyBox";
import { NumberBox } from "../../shared/fields/NumberBox";
import { Button, Small } from "../../shared/parts";
import { type Adjusted, byHand, type Problems } from "./adjusted";
import type { ByHand } from "../scopes/scopeEdits";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 14px 18px;
  margin-bottom: 16px;
  align-items: start;
  @media (max-width: 560px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  estimate: Estimate;
  scope: Scope;
  /** A guide's hours, where they were typed for this work. */
  reference?: number | null;
  onAdjust: (byHand: ByHand) => void;
  onClose: () => void;
}

/** Hours and a discount by hand, each with its reason. The computed hours stay beside them. */
export function AdjustDialog({ estimate, scope, reference, onAdjust, onClose }: Props) {
  const { format } = useSession();
  const { hours } = estimate;
  const computed = hours.computed ?? hours.quoted;
  const [typed, setTyped] = useState<Adjusted>({
    hours: hours.quoted,
    reason: hours.reason ?? "",
    guide: reference ?? null,
    discount: scope.discount?.cents ?? null,
    label: scope.discount?.label ?? "",
  });
  const [problems, setProblems] = useState<Problems>({});
  const enter =
    <K extends keyof Adjusted>(key: K) =>
    (value: Adjusted[K]) =>
      setTyped((now) => ({ ...now, [key]: value }));
  const set = (event: FormEvent) => {
    event.preventDefault();
    const made = byHand(typed, computed, Object.keys(estimate.plan.ways));
    setProblems(made.problems);
    if (!made.set) return;
    onAdjust(made.set);
    onClose();
  };

  return (
    <Dialog title="Set by hand" onClose={onClose}>
      <form onSubmit={set} noValidate>
        <Grid>
          <NumberBox
            label="Hours to quote"
            value={typed.hours}
            onValue={enter("hours")}
            decimals={1}
            fixed
            least={0}
            help={`${format.hours(computed)} computed`}
            problem={problems.hours}
            autoFocus
          />
          <Field
            label="Because"
            value={typed.reason}
            onChange={enter("reason")}
            placeholder="what the figures do not know"
            problem={problems.reason}
            maxLength={120}
          />
          <NumberBox
            label="A guide's hours"
            value={typed.guide}
            onValue={enter("guide")}
            decimals={1}
            fixed
            least={0}
            placeholder="none"
            problem={problems.guide}
          />
          <Small style={{ alignSelf: "center" }}>
            What a printed guide of the shop gives for this. It stands beside ours; the price stays ours.
          </Small>
          <MoneyBox
            label="Discount"
            cents={typed.discount}
            onCents={enter("discount")}
            placeholder="none"
            problem={problems.discount}
          />
          <Field
            label="Called on the quote"
            value={typed.label}
            onChange={enter("label")}
            placeholder="Goodwill"
            problem={problems.label}
            maxLength={80}
          />
        </Grid>
        <p style={{ display: "flex", gap: 10, alignItems: "center", flexWrap: "wrap" }}>
          <Button $main type="submit">
            Set
          </Button>
          {(scope.hours || scope.discount || reference) && (
            <Button
              onPress={() => {
                onAdjust({});
                onClose();
              }}
            >
              As computed, no discount
            </Button>
          )}
          <Small>Both figures and the reason are kept with the quote.</Small>
        </p>
      </form>
    </Dialog>
  );
}
