import styled from "styled-components";
import { ruledTable } from "../../shared/ruledTable";
import type { Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { type Formatter, list } from "../../shared/format";
import { Asked, Part, Small, Unseen } from "../../shared/parts";
import { PanelScroll } from "./PanelScroll";

const Table = styled.table`
  font-size: 14px;
  line-height: 1.3;
  margin: 4px 0 8px;
  ${ruledTable(4, 3.5)}
  th:last-child,
  td:last-child {
    text-align: right;
    white-space: nowrap;
  }
`;

type Row = NonNullable<Sheet["parts"]>[number];
type Grade = NonNullable<Sheet["grades"]>[number];

/** Everything to have before the car comes in: what the job uses, what it disturbs, what it may need. */
export function PartsPanel({
  parts,
  grades,
  onPlug,
}: {
  parts: Row[];
  grades: Grade[];
  onPlug?: (part: string) => void;
}) {
  const { format } = useSession();
  const groups: [string, Row[]][] = [
    ["Ordered for the work", parts.filter((row) => row.rule === "needed")],
    ["Disturbed on the way, always new", parts.filter((row) => row.rule === "replace")],
    ["To have at hand, billed only if used", parts.filter((row) => row.rule === "if-needed")],
  ];
  return (
    <PanelScroll $least={120} tabIndex={0} role="region" aria-label="Parts">
      {groups.map(([label, rows]) =>
        rows.length === 0 ? null : (
          <Table key={label}>
            <thead>
              <tr>
                <th scope="col">{label}</th>
                <th scope="col">{rows[0]?.rule === "if-needed" ? "chance" : "quantity"}</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={`${row.part}-${row.chance ?? ""}`}>
                  <td>
                    {row.label || row.part} <Part>{row.part}</Part>
                    <Small>
                      for{" "}
                      {row.because.length > 3
                        ? `${row.because.length} places`
                        : list(row.because.map((name) => name.toLowerCase()))}
                    </Small>
                  </td>
                  <td>{row.rule === "if-needed" ? ifNeeded(row, format) : row.quantity}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        ),
      )}
      <Grades grades={grades} onPlug={onPlug} />
      {parts.length === 0 && <Small>This work needs no parts.</Small>}
    </PanelScroll>
  );
}

/** Plugs to choose from, by what they cost over the distance they last with this access. */
function Grades({ grades, onPlug }: { grades: Grade[]; onPlug?: (part: string) => void }) {
  const { format } = useSession();
  const [best, next] = grades;
  if (!best || !next) return null;
  const cost = (cents: number) => format.money(Math.round((format.toKm(1000) / 1000) * cents));
  const unit = format.distance(format.toKm(1000));
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Plug grade, with the labor of this access</th>
          <th scope="col">per {unit}</th>
        </tr>
      </thead>
      <tbody>
        {grades.map((row) => (
          <tr key={row.part}>
            <td>
              {row.grade}, lasts {format.distance(row.life_km)} <Part>{row.part}</Part>
              <Small>{format.money(row.cents)} each time</Small>{" "}
              {row.taken ? (
                <strong>on this quote</strong>
              ) : (
                onPlug && (
                  <Asked onPress={() => onPlug(row.part)}>
                    take it<Unseen>: {row.part}</Unseen>
                  </Asked>
                )
              )}
            </td>
            <td>{cost(row.per_1000_km_cents)}</td>
          </tr>
        ))}
        <tr>
          <td colSpan={2}>
            <strong>
              {best.grade === next.grade ? best.label : `The ${best.grade} ones`}:{" "}
              {cost(next.per_1000_km_cents - best.per_1000_km_cents)} less per {unit}.
            </strong>
          </td>
        </tr>
      </tbody>
    </Table>
  );
}

/** How often a part that may be needed is: "2 × 1 in 12 each", "on sight". */
function ifNeeded({ quantity, chance }: Row, format: Formatter): string {
  const many = quantity > 1 ? `${quantity} × ` : "";
  if (chance === null) return `${many}on sight`;
  return `${many}${format.oneIn(chance)}${quantity > 1 ? " each" : ""}`;
}
