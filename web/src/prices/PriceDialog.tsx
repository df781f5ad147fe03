import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import styled from "styled-components";
import { api, type Prices } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/Field";
import { KeepRow } from "../shared/KeepRow";
import { amount } from "../shared/numerals";
import { Button, Notice } from "../shared/parts";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px 18px;
  margin-bottom: 16px;
  align-items: start;
  .wide {
    grid-column: 1 / -1;
  }
  @media (max-width: 480px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What the fields start from: a part of the list with one of its offers, or a part that has no price yet. */
export interface Priced {
  part: string;
  description: string;
  listCents: number | null;
  offer?: Prices["parts"][number]["offers"][number];
}

type Row = Partial<Record<"part" | "description" | "supplier" | "cost" | "on_hand" | "lead_days" | "list", string>>;

/** The word that takes a cost or a list price away. */
const NONE = "none";

interface Props {
  start: Priced;
  revision: number;
  onClose: () => void;
}

/** One part and what one supplier asks for it. Kept as the next revision of the list. */
export function PriceDialog({ start, revision, onClose }: Props) {
  const queries = useQueryClient();
  const { shop } = useSession();
  const money = (cents: number | null | undefined) =>
    cents === null || cents === undefined ? "" : amount(cents, shop.currency_exponent);
  const [row, setRow] = useState({
    part: start.part,
    description: start.description,
    supplier: start.offer?.supplier ?? "",
    cost: money(start.offer?.cost_cents),
    on_hand: start.offer?.on_hand === undefined ? "" : String(start.offer.on_hand),
    lead_days: start.offer?.lead_days === undefined ? "" : String(start.offer.lead_days),
    list: money(start.listCents),
  });
  const enter = (key: keyof typeof row) => (text: string) => setRow((now) => ({ ...now, [key]: text }));
  const keep = useMutation({
    mutationFn: (rows: Row[]) => api.keepPrices({ rows, revision }, crypto.randomUUID()),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["prices"] });
      onClose();
    },
    onError: () => void queries.invalidateQueries({ queryKey: ["prices"] }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate([{ ...row, list: row.list.trim() === "" && start.listCents !== null ? NONE : row.list }]);
  };

  return (
    <Dialog
      title={
        start.offer ? `${start.part} at ${start.offer.supplier}` : start.part ? `Price of ${start.part}` : "Set a price"
      }
      onClose={onClose}
    >
      <form onSubmit={submit}>
        <Grid>
          {!start.part && (
            <Field label="Part" value={row.part} onChange={enter("part")} isRequired maxLength={60} autoFocus />
          )}
          <Field
            className={start.part ? "wide" : undefined}
            label="Description"
            value={row.description}
            onChange={enter("description")}
            maxLength={200}
          />
          {!start.offer && (
            <Field
              label="Supplier"
              value={row.supplier}
              onChange={enter("supplier")}
              isRequired
              maxLength={80}
              autoFocus={start.part !== ""}
            />
          )}
          <Field
            className={start.offer ? "wide" : undefined}
            label={`Costs, ${shop.currency}`}
            value={row.cost}
            onChange={enter("cost")}
            isRequired
            inputMode="text"
            autoFocus={start.offer !== undefined}
          />
          <Field
            label="On hand there"
            value={row.on_hand}
            onChange={enter("on_hand")}
            inputMode="numeric"
            placeholder="unknown"
          />
          <Field
            label="Days until it is here"
            value={row.lead_days}
            onChange={enter("lead_days")}
            inputMode="numeric"
            placeholder="unknown"
          />
          <Field
            className="wide"
            label={`Sells for at most, ${shop.currency}`}
            value={row.list}
            onChange={enter("list")}
            inputMode="text"
            placeholder="by the house markup"
          />
        </Grid>
        {keep.error && (
          <Notice role="alert">
            <p>{keep.error.message}</p>
          </Notice>
        )}
        <KeepRow isPending={keep.isPending} onLeave={onClose}>
          {start.offer && (
            <Button
              onPress={() =>
                start.offer && keep.mutate([{ part: start.part, supplier: start.offer.supplier, cost: NONE }])
              }
              isDisabled={keep.isPending}
            >
              No longer offered
            </Button>
          )}
        </KeepRow>
      </form>
    </Dialog>
  );
}
