import styled from "styled-components";
import { ruledTable } from "../shared/ruledTable";
import type { EngineWithProfile } from "../api/client";
import { WORKS } from "../quote/scopes/works";
import { useSession } from "../session/SessionGate";
import { list } from "../shared/format";
import { Small, Strong } from "../shared/parts";
import { alike, notesOf, ownPlugs, plugTorque, type Profile } from "./profile";

export const Table = styled.table`
  font-size: 14px;
  margin: 2px 0 22px;
  ${ruledTable(10, 5)}
  th {
    vertical-align: bottom;
  }
  tr[data-active] td {
    background: var(--sheet);
    box-shadow: inset 0 -2px var(--mark);
  }
  td:nth-child(2) {
    max-width: 260px;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
    font-size: 13px;
    color: var(--second);
  }
  .caution {
    color: var(--ink);
    font-weight: 600;
  }
`;
const Wide = styled.div`
  overflow-x: auto;
`;
const Facts = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0;
  margin: 2px 0 18px;
  font-size: 14px;
  dt,
  dd {
    padding: 4px 14px 4px 0;
    border-bottom: 1px solid var(--rule);
    margin: 0;
  }
  dt {
    color: var(--second);
  }
`;

/** Hours of every kind of work: each cylinder alone, and all together. */
export function Soundings({ page }: { page: EngineWithProfile["page"] }) {
  const { format } = useSession();
  const numbers = [...new Set(page.works.flatMap((row) => row.cylinders.map((cylinder) => cylinder.cylinder)))].sort(
    (a, b) => a - b,
  );
  const say = (hours: number | null | undefined) =>
    hours === undefined ? "" : hours === null ? "no way" : format.hours(hours);
  return (
    <Wide tabIndex={0} role="region" aria-label="Hours of each kind of work">
      <Table>
        <thead>
          <tr>
            <th scope="col">Hours, alone</th>
            {numbers.map((number) => (
              <th scope="col" className="figure" key={number}>
                {number}
              </th>
            ))}
            <th scope="col" className="figure">
              all
            </th>
          </tr>
        </thead>
        <tbody>
          {page.works.map((row) => (
            <tr key={row.work}>
              <td>{WORKS[row.work as keyof typeof WORKS].label}</td>
              {numbers.map((number) => (
                <td className="figure" key={number}>
                  {say(row.cylinders.find((cylinder) => cylinder.cylinder === number)?.hours)}
                </td>
              ))}
              <td className="figure">
                <Strong>{say(row.all)}</Strong>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Wide>
  );
}

interface StepsProps {
  profile: Profile;
  page: EngineWithProfile["page"];
  active: string | null;
  onActive: (ref: string | null) => void;
}

/** What comes off, with everything that comes with it; neighbors alike share a row. */
export function Steps({ profile, page, active, onActive }: StepsProps) {
  const { format } = useSession();
  const label = (id: string) => profile.steps.find((step) => step.id === id)?.label ?? id;
  const number = (id: string) => page.layers.find((layer) => layer.step === id)?.number;
  const equipment = (id: string) => page.equipment.find((row) => row.id === id)?.label ?? id;
  const minutes = (points: number[]) => points.map((point) => format.figure(point)).join(" / ");
  const rows = alike(profile.steps, label, format.figure);
  return (
    <Wide tabIndex={0} role="region" aria-label="Steps">
      <Table>
        <thead>
          <tr>
            <th scope="col">No.</th>
            <th scope="col">Step</th>
            <th scope="col" className="figure">
              off
            </th>
            <th scope="col" className="figure">
              on
            </th>
            <th scope="col">With it</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const [step] = row;
            if (!step) return null;
            return (
              <tr
                key={step.id}
                data-active={row.some((one) => one.id === active) ? "" : undefined}
                onPointerEnter={() => onActive(step.id)}
                onPointerLeave={() => onActive(null)}
              >
                <td>
                  {row
                    .map((one) => number(one.id))
                    .filter(Boolean)
                    .join(", ")}
                </td>
                <td>
                  {list(row.map((one) => one.label))}
                  {step.zone && step.zone !== "top" && (
                    <Small> {step.zone === "under" ? "from beneath" : `at the ${step.zone}`}</Small>
                  )}
                </td>
                <td className="figure">{minutes(step.remove)}</td>
                <td className="figure">{minutes(step.refit)}</td>
                <td>
                  <ul>
                    {notesOf(step, label, equipment, format.figure).map((line) => (
                      <li key={line}>{line}</li>
                    ))}
                    {(step.cautions ?? []).map((line) => (
                      <li key={line} className="caution">
                        Caution: {line}
                      </li>
                    ))}
                  </ul>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Wide>
  );
}

/** The plug in figures. */
export function PlugFacts({
  profile,
  equipment,
}: {
  profile: Profile;
  equipment: EngineWithProfile["page"]["equipment"];
}) {
  const { format } = useSession();
  const { plug } = profile;
  const facts: [string, string | undefined][] = [
    ["Part", plug.part],
    ["Plugs a cylinder", String(plug.per_cylinder ?? 1)],
    ["Kind", [plug.grade, plug.construction?.replaceAll("-", " ")].filter(Boolean).join(", ")],
    [
      "Thread, reach, hex",
      [plug.thread_mm, plug.reach_mm, plug.hex_mm]
        .filter((value) => value !== undefined)
        .map((value) => `${format.figure(value ?? 0)} mm`)
        .join(", "),
    ],
    ["Seat", plug.seat],
    ["Gap", plug.gap_mm && `${format.figure(plug.gap_mm.low)} to ${format.figure(plug.gap_mm.high)} mm`],
    ["Torque", plugTorque(plug, format.figure)],
    ...ownPlugs(profile, format.figure),
    [
      "Due every",
      [plug.interval_km && format.distance(plug.interval_km), plug.interval_months && `${plug.interval_months} months`]
        .filter(Boolean)
        .join(" or "),
    ],
    ["Thread compound", plug.compound === "unstated" ? "the profile is silent" : plug.compound],
    ["Soaks allowed", profile.soaks?.map((soak) => soak.replaceAll("-", " ")).join(", ")],
    ["Equipment its routes ask for", equipment.map((row) => row.label).join(", ") || "none"],
  ];
  return (
    <Facts>
      {facts
        .filter(([, value]) => value)
        .map(([label, value]) => (
          <div key={label} style={{ display: "contents" }}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </div>
        ))}
    </Facts>
  );
}

/** What to mind at the work itself. */
export function Cautions({ profile }: { profile: Profile }) {
  const lines = [...new Set(profile.targets.flatMap((target) => target.cautions ?? []))];
  return (
    <Table>
      <tbody>
        {lines.map((line) => (
          <tr key={line}>
            <td>{line}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
