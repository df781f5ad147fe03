import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import styled from "styled-components";
import { api, type Prices } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { MoneyBox } from "../shared/fields/MoneyBox";
import { NumberBox } from "../shared/fields/NumberBox";
import { KeepRow } from "../shared/KeepRow";
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

/** What is typed as figures; null where nothing is. */
type Figures = Record<"cost" | "on_hand" | "lead_days" | "list", number | null>;

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
  const cell = (cents: number | null) => (cents === null ? "" : plainAmount(cents, shop.currency_exponent));
  const [row, setRow] = useState({
    part: start.part,
    description: start.description,
    supplier: start.offer?.supplier ?? "",
  });
  const [figures, setFigures] = useState<Figures>({
    cost: start.offer?.cost_cents ?? null,
    on_hand: start.offer?.on_hand ?? null,
    lead_days: start.offer?.lead_days ?? null,
    list: start.listCents,
  });
  const enter = (key: keyof typeof row) => (text: string) => setRow((now) => ({ ...now, [key]: text }));
  const count = (key: keyof Figures) => (value: number | null) => setFigures((now) => ({ ...now, [key]: value }));
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
    keep.mutate([
      {
        ...row,
        cost: cell(figures.cost),
        on_hand: figures.on_hand === null ? "" : String(figures.on_hand),
        lead_days: figures.lead_days === null ? "" : String(figures.lead_days),
        list: figures.list === null && start.listCents !== null ? NONE : cell(figures.list),
      },
    ]);
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
          <MoneyBox
            className={start.offer ? "wide" : undefined}
            label="Costs"
            cents={figures.cost}
            onCents={count("cost")}
            isRequired
            autoFocus={start.offer !== undefined}
          />
          <NumberBox
            label="On hand there"
            value={figures.on_hand}
            onValue={count("on_hand")}
            decimals={0}
            least={0}
            placeholder="unknown"
          />
          <NumberBox
            label="Days until it is here"
            value={figures.lead_days}
            onValue={count("lead_days")}
            decimals={0}
            least={0}
            placeholder="unknown"
          />
          <MoneyBox
            className="wide"
            label="Sells for at most"
            cents={figures.list}
            onCents={count("list")}
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
              isPending={keep.isPending}
            >
              No longer offered
            </Button>
          )}
        </KeepRow>
      </form>
    </Dialog>
  );
}

/** An amount as rows of a price list hold it in every locale. */
const plainAmount = (cents: number, exponent: number): string => (cents / 10 ** exponent).toFixed(exponent);
