import styled from "styled-components";
import { LiveNumber } from "../shared/fields/LiveNumber";
import { Button, Small } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";
import { ForkMark } from "./ForkMark";
import type { EngineDraft } from "./useEngineDraft";

const Table = styled.table`
  font-size: 14px;
  ${ruledTable(8, 4)}
  td {
    vertical-align: middle;
  }
  .minutes input {
    text-align: right;
    width: 62px;
  }
`;

interface Props {
  draft: EngineDraft;
  onUnfold: (target: string) => void;
}

/** The work at the bottom: what it takes, and by which ways it is reached. */
export function WorkTable({ draft, onUnfold }: Props) {
  const { profile, look } = draft;
  const label = (id: string) => profile.steps.find((step) => step.id === id)?.label ?? id;
  const through = (way: (typeof profile.targets)[number]["ways"][number]) =>
    (way.through ?? [])
      .map((entry) => (typeof entry === "string" ? label(entry) : entry.any.map(label).join(" or ")))
      .join(", ");
  return (
    <>
      <Table>
        <thead>
          <tr>
            <th scope="col">Work</th>
            <th scope="col">through</th>
            <th scope="col" className="figure">
              minutes
            </th>
            <th scope="col" aria-label="More of it" />
          </tr>
        </thead>
        <tbody>
          {profile.targets.map((target, i) => (
            <tr key={target.id}>
              <td>
                {target.label ??
                  `${target.work.replaceAll("-", " ")} ${target.cylinder ?? target.cylinders?.join(", ") ?? ""}`}
                {target.position && <Small> {target.position}</Small>}
              </td>
              <td>
                {target.ways.map((way, j) => (
                  <div key={way.id}>
                    {target.ways.length > 1 && <ForkMark isFirst={j === 0} />}
                    {target.ways.length > 1 && <Small>{way.id.replaceAll("-", " ")}: </Small>}
                    {through(way) || "open"}
                  </div>
                ))}
              </td>
              <td className="figure minutes">
                <LiveNumber
                  bare
                  label={`${target.id}, minutes`}
                  value={target.minutes?.[1] ?? null}
                  onValue={(minutes) => draft.about(["targets", i, "minutes"], minutes)}
                  problem={look.faults.find((fault) => fault.path.startsWith(`/targets/${i}/minutes`))?.message}
                />
              </td>
              <td>
                <Button onPress={() => onUnfold(target.id)} aria-label={`All of ${target.id}`}>
                  …
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>
        <Button
          onPress={() => {
            const id = fresh(profile.targets.map((target) => target.id));
            const made = { id, work: "other", label: "Other work", minutes: [5, 10, 20], ways: [{ id: "from-above" }] };
            draft.type(["targets", profile.targets.length], made);
            onUnfold(id);
          }}
        >
          Other work
        </Button>
      </p>
    </>
  );
}

const fresh = (ids: string[]): string => {
  for (let n = ids.length + 1; ; n++) if (!ids.includes(`work-${n}`)) return `work-${n}`;
};
