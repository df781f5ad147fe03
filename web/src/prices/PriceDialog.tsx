import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import styled from "styled-components";
import { api, type Prices } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/Field";
import { KeepRow } from "../shared/KeepRow";
import { Notice } from "../shared/parts";

const Grid = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 14px 18px; margin-bottom: 16px; align-items: start;
  .wide { grid-column: 1 / -1; }
  @media (max-width: 480px) { grid-template-columns: minmax(0, 1fr); }
`;

/** What the fields start from: a part of the list with one of its offers, or a part that has no price yet. */
export interface Priced {
  part: string;
  description: string;
  listCents: number | null;
  offer?: Prices["parts"][number]["offers"][number];
}

interface Props {
  start: Priced;
  revision: number;
  onClose: () => void;
}

/** One part and what one supplier asks for it. Kept as the next revision of the list. */
export function PriceDialog({ start, revision, onClose }: Props) {
  const queries = useQueryClient();
  const { format, shop } = useSession();
  const amount = (cents: number | null | undefined) => (cents === null || cents === undefined ? "" : format.money(cents).replaceAll(/[^\d.]/g, ""));
  const [row, setRow] = useState({
    part: start.part, description: start.description, supplier: start.offer?.supplier ?? "", cost: amount(start.offer?.cost_cents), on_hand: start.offer?.on_hand === undefined ? "" : String(start.offer.on_hand),
    lead_days: start.offer?.lead_days === undefined ? "" : String(start.offer.lead_days), list: amount(start.listCents),
  });
  const enter = (key: keyof typeof row) => (text: string) => setRow((now) => ({ ...now, [key]: text }));
  const keep = useMutation({
    mutationFn: () => api.keepPrices({ rows: [row], revision }, crypto.randomUUID()),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["prices"] });
      onClose();
    },
    onError: () => void queries.invalidateQueries({ queryKey: ["prices"] }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate();
  };

  return (
    <Dialog title={start.part ? `Price of ${start.part}` : "Set a price"} onClose={onClose}>
      <form onSubmit={submit}>
        <Grid>
          {!start.part && <Field label="Part" value={row.part} onChange={enter("part")} isRequired maxLength={60} autoFocus />}
          <Field className={start.part ? "wide" : undefined} label="Description" value={row.description} onChange={enter("description")} maxLength={200} />
          <Field label="Supplier" value={row.supplier} onChange={enter("supplier")} isRequired maxLength={80} autoFocus={start.part !== "" && !start.offer} />
          <Field label={`Costs, ${shop.currency}`} value={row.cost} onChange={enter("cost")} isRequired inputMode="text" autoFocus={start.offer !== undefined} />
          <Field label="On hand there" value={row.on_hand} onChange={enter("on_hand")} inputMode="numeric" placeholder="unknown" />
          <Field label="Days until it is here" value={row.lead_days} onChange={enter("lead_days")} inputMode="numeric" placeholder="unknown" />
          <Field className="wide" label={`Sells for at most, ${shop.currency}`} value={row.list} onChange={enter("list")} inputMode="text" placeholder="by the house markup" />
        </Grid>
        {keep.error && (
          <Notice role="alert">
            <p>{keep.error.message}</p>
          </Notice>
        )}
        <KeepRow isPending={keep.isPending} onLeave={onClose} />
      </form>
    </Dialog>
  );
}
