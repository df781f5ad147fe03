import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type BillPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { faultsByPath } from "../shared/faults";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { Button, Heading, Notice, Small } from "../shared/parts";

const Fields = styled.div`
  display: grid;
  gap: 12px;
  margin: 10px 0 14px;
`;

const TERMS = [
  { id: "0", text: "at the hand-over" },
  { id: "14", text: "within 14 days" },
  { id: "30", text: "within 30 days" },
];

interface Props {
  page: BillPage;
  draft: NonNullable<BillPage["draft"]>;
  onIssued: (fresh: BillPage) => void;
}

/** To whom the bill goes and when it is due; it is issued once, at the total that stands beside it. */
export function IssueForm({ page, draft, onIssued }: Props) {
  const { format } = useSession();
  const [payer, setPayer] = useState(page.customer ?? "");
  const [address, setAddress] = useState("");
  const [days, setDays] = useState("0");
  const total = draft.answer.total_cents;
  const issue = useMutation({
    mutationFn: () =>
      api.issueBill(page.job.id, { payer, address, days: Number(days), total_cents: total }, crypto.randomUUID()),
    onSuccess: onIssued,
  });
  const faults = faultsByPath(issue.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    issue.mutate();
  };
  const missing = draft.answer.missing ?? [];
  return (
    <section aria-label="Issue the bill">
      <Heading>
        <span>Issue the bill</span>
        {page.handed_over_at && <Small>handed over {format.lately(page.handed_over_at)}</Small>}
      </Heading>
      {missing.length > 0 ? (
        <Notice>
          <p>No price for {missing.join(", ")}. Set it under Prices first.</p>
        </Notice>
      ) : (
        <Form onSubmit={submit}>
          <Fields>
            <Field label="To" value={payer} onChange={setPayer} maxLength={120} isRequired problem={faults["/payer"]} />
            <Field label="Address" value={address} onChange={setAddress} maxLength={400} placeholder="street, town" />
            <Choice label="To pay" value={days} options={TERMS} onPick={setDays} />
          </Fields>
          <Button type="submit" $main isPending={issue.isPending}>
            Issue it at {format.moneyWithSign(total)}
          </Button>
          <Small as="p" style={{ marginTop: 6 }}>
            It gets the next number and is not changed after. A credit note puts it right.
          </Small>
          {issue.error && (
            <Notice role="alert">
              <p>{issue.error.message}</p>
            </Notice>
          )}
        </Form>
      )}
    </section>
  );
}
