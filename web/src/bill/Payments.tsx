import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api, type BillPage } from "../api/client";
import { NeedRows } from "../counter/rows";
import { useSession } from "../session/SessionGate";
import { faultsByPath } from "../shared/faults";
import { Choice } from "../shared/fields/Choice";
import { DayBox } from "../shared/fields/DayBox";
import { MoneyBox } from "../shared/fields/MoneyBox";
import { Button, Heading, Notice, Small } from "../shared/parts";
import { MEANS } from "./words";

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  @media (max-width: 600px) {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  gap: 12px 14px;
  align-items: start;
  margin: 8px 0 12px;
`;

type Means = BillPage["payments"][number]["means"];

interface Props {
  page: BillPage;
  onPaid: (fresh: BillPage) => void;
}

/** What was paid, and the next payment: a deposit before there is a bill, and what is given back. */
export function Payments({ page, onPaid }: Props) {
  const { format } = useSession();
  const isBack = page.owed_cents < 0 && page.due_on !== null;
  const open = page.due_on === null ? null : Math.abs(page.owed_cents) || null;
  const [cents, setCents] = useState<number | null>(open);
  const [way, setWay] = useState<"in" | "back">(isBack ? "back" : "in");
  const [means, setMeans] = useState<Means>("card");
  const [on, setOn] = useState<string | null>(format.dayNow());
  // One key for one payment, however often it is sent; the next has another.
  const [key, setKey] = useState(() => crypto.randomUUID());
  const pay = useMutation({
    mutationFn: () =>
      api.pay(page.job.id, { cents: (way === "back" ? -1 : 1) * (cents ?? 0), means, on: on ?? format.dayNow(), key }),
    onSuccess: (fresh) => {
      setKey(crypto.randomUUID());
      setCents(null);
      onPaid(fresh);
    },
  });
  const faults = faultsByPath(pay.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (cents !== null) pay.mutate();
  };
  return (
    <section aria-label="Paid" style={{ marginTop: 22 }}>
      <Heading>
        <span>Paid</span>
        <Small>{format.money(page.paid_cents)}</Small>
      </Heading>
      {page.payments.length > 0 && (
        <NeedRows>
          {page.payments.map((row) => (
            <li key={row.id} style={{ display: "flex", justifyContent: "space-between", minHeight: 38 }}>
              <span>
                {format.day(row.on)}{" "}
                <Small>
                  {row.cents < 0 && "given back, "}
                  {MEANS[row.means]}
                  {row.by && `, ${row.by}`}
                </Small>
              </span>
              <span className="figure">{format.money(row.cents)}</span>
            </li>
          ))}
        </NeedRows>
      )}
      {(page.due_on === null || page.owed_cents !== 0 || page.paid_cents > 0) && (
        <Form onSubmit={submit}>
          {page.paid_cents > 0 && (
            <Choice
              label="Money"
              value={way}
              options={[
                { id: "in", text: "came in" },
                { id: "back", text: "is given back" },
              ]}
              onPick={(id) => setWay(id as "in" | "back")}
            />
          )}
          <Fields>
            <MoneyBox
              label={way === "back" ? "Given back" : page.due_on === null ? "A deposit" : "Paid now"}
              cents={cents}
              onCents={setCents}
              problem={faults["/cents"]}
            />
            <Choice
              label="By"
              value={means}
              options={(Object.keys(MEANS) as Means[]).map((id) => ({ id, text: MEANS[id] }))}
              onPick={(id) => setMeans(id as Means)}
            />
            <DayBox label="On" value={on} onDay={setOn} problem={faults["/on"]} />
          </Fields>
          <Button type="submit" isPending={pay.isPending} isDisabled={cents === null || cents === 0}>
            Note it
          </Button>
          <Small as="p" style={{ marginTop: 6 }}>
            No card numbers here. Noting cash is not a certified till.
          </Small>
          {pay.error && (
            <Notice role="alert">
              <p>{pay.error.message}</p>
            </Notice>
          )}
        </Form>
      )}
    </section>
  );
}
