import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Content, QuotePage, Resolved } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { useKeys } from "../../shared/keys";
import { Asked, KeyHint, Plate, Small, Strong, Unseen } from "../../shared/parts";
import { whenOpened } from "../../shared/whenOpened";

const CarDialog = whenOpened(async () => (await import("../../car/CarDialog")).CarDialog);
const ConditionDialog = whenOpened(async () => (await import("./ConditionDialog")).ConditionDialog);
const CustomerDialog = whenOpened(async () => (await import("./CustomerDialog")).CustomerDialog);
const PlugsDialog = whenOpened(async () => (await import("./PlugsDialog")).PlugsDialog);

const Strip = styled.header`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 4px 18px;
  align-items: center;
  padding: 9px 18px;
  border-bottom: 2px solid var(--ink);
  min-height: 60px;
  h1 {
    font-size: 17px;
    font-weight: 650;
    line-height: 1.2;
  }
  .right {
    text-align: right;
    max-width: 34vw;
  }
  .right strong {
    display: inline-block;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    vertical-align: bottom;
    line-height: 1.3;
  }
  .clip {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 600px) {
    grid-template-columns: minmax(0, 1fr);
    justify-items: start;
    .right {
      text-align: left;
      max-width: none;
    }
  }
`;

const Past = styled(Small)`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  @media (max-width: 600px) {
    row-gap: 8px;
  }
  button {
    min-width: 0;
    text-align: left;
  }
  .pair {
    flex: none;
    display: inline-flex;
    gap: 6px;
    align-items: center;
    white-space: nowrap;
  }
`;

interface Props {
  page: QuotePage;
  content: Content;
  resolved: Resolved;
  saved: string;
  /** What the server refused of the last change. */
  problem: string;
  revisions: QuotePage["revisions"];
  onChange?: (next: (content: Content) => Content) => void;
}

/** The car and its past, in one line; history and condition open from it. */
export function VehicleStrip({ page, content, resolved, saved, problem, revisions, onChange }: Props) {
  const { format } = useSession();
  const { vehicle, engine, quote } = page;
  const [open, setOpen] = useState(false);
  const [named, setNamed] = useState(false);
  const [plugs, setPlugs] = useState(false);
  const [car, setCar] = useState(false);
  const queries = useQueryClient();
  useKeys([
    { key: "k", hint: "K", label: "Condition and history", run: () => setOpen(true) },
    { key: ",", hint: ",", label: "Plugs in the head, cylinder by cylinder", run: () => setPlugs(true) },
  ]);
  const { history, condition, assumed } = resolved;
  const changed =
    assumed.includes("plugs_changed_km") || history.plugs_changed_km === 0
      ? "plugs never changed, as far as known"
      : `new plugs at ${format.distance(history.plugs_changed_km)}, ${format.years(history.plugs_changed_years)} ago`;
  const wet = Object.values(condition.wells).some((well) => well !== "dry");
  const state = [
    condition.corrosion !== "none" && `${condition.corrosion} rust`,
    condition.brittle && "brittle connectors",
    condition.bodged && "earlier bodge",
    wet && "wet wells",
    resolved.oily_wells.length > 0 && `oil in ${list(resolved.oily_wells.map(String))}: what seals it?`,
  ].filter(Boolean);
  const last = revisions.at(-1);

  return (
    <Strip>
      <Plate>
        <Asked onPress={() => setCar(true)}>
          <Unseen>The car </Unseen>
          {vehicle.plate}
        </Asked>
      </Plate>
      <div className="clip">
        <h1>
          {vehicle.description}
          {vehicle.year ? `, ${vehicle.year}` : ""} <Small>{engine.name}</Small>
          {engine.provisional && <Strong style={{ fontSize: 13 }}> · provisional: engine only sketched</Strong>}
        </h1>
        <Past>
          <Asked onPress={() => setOpen(true)}>
            {assumed.includes("odometer_km") ? "odometer unknown" : format.distance(history.odometer_km)} · {changed}
            {state.length > 0 && ` · ${state.join(", ")}`} <KeyHint>K</KeyHint>
          </Asked>
          <span className="pair">
            <Asked onPress={() => setPlugs(true)}>
              {page.findings.length > 0 ? `by cylinder, ${page.findings.length} found earlier` : "by cylinder"}
            </Asked>
            <KeyHint>,</KeyHint>
          </span>
        </Past>
      </div>
      <div className="right">
        <strong>
          {vehicle.customer_id && onChange ? (
            <Asked onPress={() => setNamed(true)}>{vehicle.customer}</Asked>
          ) : (
            (vehicle.customer ?? "No owner noted")
          )}
        </strong>
        <br />
        <Small>
          Quote {quote.number} ·{" "}
          {last ? <Link to={`/quotes/${quote.id}/revisions/${last.revision}`}>{saved}</Link> : saved}
        </Small>
      </div>
      {car && (
        <CarDialog
          id={vehicle.id}
          cylinders={page.sheet.reach.cylinders.map((cylinder) => cylinder.number)}
          onClose={() => setCar(false)}
          onChanged={(fresh) =>
            queries.setQueryData<QuotePage>(
              ["quote", quote.id],
              (now) => now && { ...now, vehicle: fresh.vehicle, fittings: fresh.fittings },
            )
          }
        />
      )}
      {named && vehicle.customer_id && (
        <CustomerDialog page={page} customer={vehicle.customer_id} onClose={() => setNamed(false)} />
      )}
      {plugs && (
        <PlugsDialog
          page={page}
          content={content}
          resolved={resolved}
          problem={problem}
          onChange={onChange}
          onClose={() => setPlugs(false)}
        />
      )}
      {open && (
        <ConditionDialog
          page={page}
          content={content}
          resolved={resolved}
          problem={problem}
          onChange={onChange}
          onClose={() => setOpen(false)}
        />
      )}
    </Strip>
  );
}
