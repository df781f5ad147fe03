import styled from "styled-components";
import { sentence } from "../shared/format";
import { Asked, Notice } from "../shared/parts";
import type { Unfold } from "./Unfolded";
import type { EngineDraft } from "./useEngineDraft";

const Spaced = styled(Notice)`
  margin-bottom: 12px;
  max-width: none;
  border-left-color: var(--mark);
`;

interface Props {
  draft: EngineDraft;
  onUnfold: (what: Unfold) => void;
}

/** What is wrong, each at its place; the last good drawing stays meanwhile. */
export function FaultList({ draft, onUnfold }: Props) {
  const { faults, warnings } = draft.look;
  const rows = faults.length > 0 ? faults : warnings;
  if (rows.length === 0) return null;
  const place = (path: string) => {
    const [, list, index] = path.split("/");
    if (list !== "steps" && list !== "targets") return null;
    const row = draft.profile[list][Number(index)];
    return row ? { list: list as Unfold["list"], id: row.id, name: row.label || row.id } : null;
  };
  return (
    <Spaced role="status" aria-label={faults.length > 0 ? "What is wrong" : "To look at"}>
      {rows.slice(0, 4).map((row) => {
        const where = place(row.path);
        const says = `${where?.name ?? row.path}: ${sentence(row.message)}`;
        return (
          <p key={row.path + row.message}>
            {where ? <Asked onPress={() => onUnfold({ list: where.list, id: where.id })}>{says}</Asked> : says}
          </p>
        );
      })}
      {faults.length > 0 && <p>The drawing and the prices are those before it.</p>}
    </Spaced>
  );
}
