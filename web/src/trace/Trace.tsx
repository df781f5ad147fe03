import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { api, type TraceContent, type TracePage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { list } from "../shared/format";
import { useKeys } from "../shared/keys";
import { letter, useCylinderKeys } from "../shared/useCylinderKeys";
import { Button, Heading, KeyHint, Notice, Plate, Small, Strong } from "../shared/parts";
import { underWarranty } from "../car/fittings";
import { tagOfFindings } from "../quote/vehicle/findings";
import { Columns, Margin, Matter, Spread } from "../shared/Spread";
import { Fair } from "./GuessOrKnow";
import { Known } from "./Known";
import { Moved } from "./MovedParts";
import { NextTest } from "./NextTest";
import { OnCylinder } from "./OnCylinder";
import { Suspects } from "./Suspects";
import { TakeIn } from "./TakeIn";
import { toScopes } from "./toScopes";
import { useTrace } from "./useTrace";
import { toSay } from "./words";

const Stop = styled.p`
  color: var(--mark);
  font-size: 21px;
  font-weight: 650;
  margin: 0 0 10px;
`;

/** Finding the fault: where it may be, what is known and what it did, what to do next, and what that is worth. */
export function Trace({ page }: { page: TracePage }) {
  const { account } = useSession();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const tracing = useTrace(page);
  const { sheet, content, bay } = tracing;
  const first = [...sheet.shares].sort((a, b) => b.share - a.share)[0]?.cylinder ?? 1;
  const [chosen, setChosen] = useState<number | null>(null);
  const [isAdding, setAdding] = useState(false);
  const shown = chosen ?? first;
  const numbers = page.reach.cylinders.map((cylinder) => cylinder.number);
  const over = page.layers.filter((layer) => layer.over.includes(shown) && layer.cylinder === null);
  const ours = underWarranty(page.fittings, shown);
  const found = tagOfFindings(page.findings, shown);
  const oily = (content.evidence ?? []).some(
    (one) => one.test === "look-coil" && one.outcome === "oil" && one.cylinder === shown,
  );
  const quote = useMutation({
    mutationFn: async () => {
      const open = await api.quote(page.quote.id);
      const next = toScopes(open.draft.content, sheet);
      if (next) await api.storeDraft(page.quote.id, { version: open.draft.version, content: next });
    },
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["quote", page.quote.id] });
      void navigate(`/quotes/${page.quote.id}`);
    },
  });
  const writes = account.role !== "technician";
  const home = `/quotes/${page.quote.id}`;
  const digits = useCylinderKeys(numbers, setChosen, (number) => `Suspects on cylinder ${number}`);
  useKeys([
    ...digits,
    letter("e", "Something else was done", () => setAdding(true)),
    ...(writes ? [letter("t", "To the quote with what leads", () => quote.mutate())] : []),
  ]);
  const blinks = (content.lamp ?? bay.lamp) === "blinking";
  const told = toSay(sheet);
  // What the customer says comes first while nothing has been read or tested; after that what to do next.
  const isKnown = (content.codes ?? bay.codes ?? null) !== null || sheet.evidence.some((row) => row.from === "test");

  return (
    <Spread>
      <Matter>
        <header style={{ alignItems: "center" }}>
          <Plate>{page.vehicle.plate}</Plate>
          <div>
            <h1 style={{ fontSize: 19 }}>{content.complaint ? `“${content.complaint}”` : "What is wrong with it?"}</h1>
            <Small>
              {page.vehicle.description} · {page.engine.name}
              {page.engine.provisional && " · provisional: engine only sketched"} ·{" "}
              <Link to={home}>quote {page.quote.number}</Link>
              {bay.job && (
                <>
                  {" "}
                  · <Link to={`/bay/${bay.job.id}`}>job {bay.job.number}</Link>
                </>
              )}
            </Small>
          </div>
        </header>
        {blinks && (
          <Stop className="stop" role="alert">
            The lamp blinks: do not drive it. Unburned fuel overheats the catalyst.
          </Stop>
        )}
        {(tracing.problem || tracing.isAway || quote.error) && (
          <Notice role="alert" style={{ marginBottom: 10 }}>
            <p>
              {tracing.isAway
                ? "The server cannot be reached. What you write is kept here and goes out when it is back."
                : tracing.problem || quote.error?.message}
            </p>
          </Notice>
        )}
        {sheet.permanent && (
          <Small as="p">
            A permanent code clears itself over the next drives after the repair; it does not say that a repair failed.
          </Small>
        )}
        <Columns style={{ "--left": "44fr", "--right": "46fr" } as CSSProperties}>
          <div>
            <Heading>
              <span>Where it may be</span>
              <Small>darker: more likely</Small>
            </Heading>
            <Suspects
              reach={page.reach}
              shares={sheet.shares}
              chosen={shown}
              isStale={tracing.isStale}
              onChoose={setChosen}
            />
            {over.length > 0 && (
              <Small as="p">
                Over {shown}: {list(over.map((layer) => layer.label.toLowerCase()))}.
              </Small>
            )}
            {ours && (
              <p>
                <Strong>
                  Number {shown}: {ours}.
                </Strong>{" "}
                If it is that part, it is ours to mend.
              </p>
            )}
            {found && (
              <p>
                <Strong>Found before at {shown}:</Strong> {found}.
              </p>
            )}
            {oily && (
              <Notice role="status">
                <p>
                  Oil stands in the well of {shown}: its tube seal or cover gasket belongs in the quote, whatever else
                  it is.
                </p>
              </Notice>
            )}
            <OnCylinder sheet={sheet} cylinder={shown} />
            <Moved tracing={tracing} />
          </div>
          <div>
            {!isKnown && <TakeIn key="in" page={page} tracing={tracing} />}
            {isKnown && <NextTest tracing={tracing} />}
            <Known tracing={tracing} cylinders={numbers} isAdding={isAdding} onAdding={setAdding} />
            {isKnown && <TakeIn key="in" page={page} tracing={tracing} />}
          </div>
        </Columns>
      </Matter>
      <Margin>
        <Fair tracing={tracing} />
        <Heading>To say</Heading>
        <div aria-live="polite">
          {told.map((sentence) => (
            <p key={sentence} style={{ margin: "4px 0" }}>
              {sentence}
            </p>
          ))}
        </div>
        <div className="end">
          {writes && (
            <Button
              $main
              onPress={() => quote.mutate()}
              isPending={quote.isPending}
              isDisabled={sheet.leads_to.length === 0}
            >
              To the quote <KeyHint>T</KeyHint>
            </Button>
          )}
          {bay.job && <Button onPress={() => void navigate(`/bay/${bay.job?.id ?? ""}`)}>To the bay</Button>}
        </div>
      </Margin>
      {tracing.clash && (
        <Dialog title="Changed meanwhile" onClose={() => undefined}>
          <p>{tracing.clash.message}</p>
          <p>
            Theirs: {inShort(tracing.clash.theirs)}. Yours: {inShort(content)}.
          </p>
          <p style={{ display: "flex", gap: 10, marginTop: 12 }}>
            <Button onPress={tracing.keepMine}>Keep mine</Button>
            <Button onPress={tracing.takeTheirs}>Take theirs</Button>
          </p>
        </Dialog>
      )}
    </Spread>
  );
}

const inShort = ({ complaint, evidence = [] }: TraceContent) =>
  `${complaint || "no complaint"}, ${evidence.length} ${evidence.length === 1 ? "test" : "tests"}`;
