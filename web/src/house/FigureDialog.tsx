import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, type House, Refused } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { sentence } from "../shared/format";
import { KeepRow } from "../shared/KeepRow";
import { Button, Notice, Small } from "../shared/parts";
import { FigureField } from "./FigureField";
import { drafted, type Faults, type Schema, undrafted } from "./figures";
import { inWords } from "./inWords";

export type Figure = House["settings"][number];

interface Props {
  figure: Figure;
  revision: number;
  onClose: () => void;
}

/** One figure of the house: what it is, what was shipped, and a new one. Kept as the next revision of the rules. */
export function FigureDialog({ figure, revision, onClose }: Props) {
  const queries = useQueryClient();
  const { format, shop } = useSession();
  const schema = figure.schema as Schema;
  const [draft, setDraft] = useState(() => drafted(figure.value, schema, shop.currency_exponent));
  const [faults, setFaults] = useState<Faults>({});
  const keep = useMutation({
    mutationFn: (body: { settings?: Record<string, unknown>; shipped?: string[] }) =>
      api.keepFigures({ ...body, revision } as Parameters<typeof api.keepFigures>[0]),
    onSuccess: (fresh) => {
      queries.setQueryData(["house"], fresh);
      void queries.invalidateQueries({ queryKey: ["session"] });
      onClose();
    },
    onError: (error) => {
      if (!(error instanceof Refused)) return;
      if (error.status === 409) void queries.invalidateQueries({ queryKey: ["house"] });
      setFaults(faultsOf(error, figure.name));
    },
  });
  const set = (event: FormEvent) => {
    event.preventDefault();
    const made = undrafted(draft, schema, shop.currency_exponent, format.figure);
    setFaults(made.faults);
    if (Object.keys(made.faults).length === 0) keep.mutate({ settings: { [figure.name]: made.value } });
  };
  const elsewhere = keep.error && Object.keys(faults).length === 0;

  return (
    <Dialog title={figure.label} onClose={onClose} wide={["array", "object"].includes(schema.type ?? "")}>
      {figure.caution && <p style={{ marginBottom: 12 }}>{figure.caution}</p>}
      <form onSubmit={set} noValidate>
        <FigureField schema={schema} draft={draft} label={figure.label} path="" faults={faults} onChange={setDraft} />
        <p style={{ margin: "12px 0" }}>
          <Small>As shipped: {inWords(figure.shipped, schema, format)}.</Small>
        </p>
        {elsewhere && (
          <Notice role="alert">
            <p>{keep.error.message}</p>
          </Notice>
        )}
        <KeepRow isPending={keep.isPending} onLeave={onClose}>
          {figure.own && (
            <Button onPress={() => keep.mutate({ shipped: [figure.name] })} isPending={keep.isPending}>
              As shipped
            </Button>
          )}
        </KeepRow>
      </form>
    </Dialog>
  );
}

/** What the server found wrong, at the fields it names. */
function faultsOf(error: Refused, name: string): Faults {
  const found = (error.body.error.details ?? []) as { path?: string; message?: string }[];
  const here = `/settings/${name}`;
  return Object.fromEntries(
    found.flatMap(({ path, message }) =>
      path?.startsWith(here) ? [[path.slice(here.length), sentence(message ?? "does not fit")]] : [],
    ),
  );
}
