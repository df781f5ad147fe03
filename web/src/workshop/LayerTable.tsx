import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { ruledTable } from "../shared/ruledTable";
import { useLatest } from "../shared/useLatest";
import { originOf } from "./edits";
import { LayerRow } from "./LayerRow";
import { MoreLayers } from "./MoreLayers";
import type { EngineDraft } from "./useEngineDraft";

const Table = styled.table`
  font-size: 14px;
  ${ruledTable(8, 4)}
  td {
    vertical-align: middle;
  }
  tr[aria-current] td {
    background: var(--sheet);
    box-shadow:
      inset 0 2px var(--mark),
      inset 0 -2px var(--mark);
  }
  .minutes input {
    text-align: right;
    width: 46px;
    min-height: 30px;
    padding: 3px 6px;
    border-color: transparent;
    background: none;
  }
  tr:hover .minutes input,
  .minutes input:focus,
  .minutes input[data-invalid] {
    border-color: var(--strong);
    background: var(--sheet);
  }
  td.name {
    width: 50%;
  }
  button.more {
    min-height: 28px;
    padding: 0 8px;
    border-color: var(--strong);
  }
  .name input {
    width: 100%;
    min-height: 30px;
    padding: 3px 6px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    color: var(--ink);
    font-weight: 650;
  }
  .name input:hover,
  .name input:focus {
    border-color: var(--strong);
    background: var(--sheet);
  }
  td:first-child {
    white-space: nowrap;
  }
  .over {
    font-variant-numeric: tabular-nums;
    word-spacing: 3px;
    white-space: nowrap;
  }
  .with {
    display: block;
    font-size: 13px;
    color: var(--second);
    padding: 0 7px;
  }
  td[data-guessed] input {
    text-decoration: underline dotted var(--second);
    text-underline-offset: 4px;
  }
  @media (max-width: 560px) {
    tr {
      display: grid;
      grid-template-columns: 44px minmax(0, 1fr) 62px 62px 40px;
      align-items: center;
      border-bottom: 1px solid var(--rule);
    }
    td,
    th {
      border: 0;
    }
    th:nth-child(3),
    th:last-child {
      display: none;
    }
    td.name {
      grid-area: 1 / 2 / 2 / 5;
      width: auto;
    }
    td:last-child {
      grid-area: 1 / 5;
    }
    td.over {
      grid-area: 2 / 2;
      padding-left: 11px;
    }
    td:nth-child(4) {
      grid-area: 2 / 3;
    }
    td:nth-child(5) {
      grid-area: 2 / 4;
    }
  }
`;
interface Props {
  draft: EngineDraft;
  selected: string | null;
  onSelect: (step: string) => void;
  onUnfold: (step: string) => void;
  onAdd: (label: string) => void;
  onFork: () => void;
  /** Set by the key for another layer. */
  focusName: number;
}

/** Layers from the top down: what each is called, what it lies over, its minutes. Order is depth. */
export function LayerTable({ draft, selected, onSelect, onUnfold, onAdd, onFork, focusName }: Props) {
  const { format } = useSession();
  const { profile, look, act } = draft;
  const [add, fork, undo, redo] = [useLatest(onAdd), useLatest(onFork), useLatest(draft.undo), useLatest(draft.redo)];
  const layers = profile.steps.filter((step) => !step.cylinder).length;
  const fault = (i: number, key: string) =>
    look.faults.find((row) => row.path.startsWith(`/steps/${i}/${key}`))?.message;

  const drop = useLatest((step: string, to: number) => {
    if (profile.steps.some((one) => one.id === step)) act({ do: "depth", step, to });
  });

  return (
    <>
      <Table>
        <thead>
          <tr>
            <th scope="col">Depth</th>
            <th scope="col">Layer</th>
            <th scope="col">lies over</th>
            <th scope="col" className="figure">
              off
            </th>
            <th scope="col" className="figure">
              on
            </th>
            <th scope="col" aria-label="More of it" />
          </tr>
        </thead>
        <tbody>
          {profile.steps.map((step, i) => {
            const members = draft.forks.find((ids) => ids.includes(step.id));
            return (
              <LayerRow
                key={step.id}
                step={step}
                at={i}
                layers={layers}
                over={overWords(
                  draft.over.find((row) => row.step === step.id)?.cylinders ?? [],
                  profile.cylinders.length,
                )}
                fork={members && others(members, step.id, profile.steps)}
                isFirstOfFork={members !== undefined && profile.steps.find((one) => members.includes(one.id)) === step}
                remove={originOf(profile, ["steps", i, "remove"])}
                refit={originOf(profile, ["steps", i, "refit"])}
                removeFault={fault(i, "remove")}
                refitFault={fault(i, "refit")}
                isSelected={step.id === selected}
                onSelect={onSelect}
                onUnfold={onUnfold}
                onDrop={drop}
                act={act}
                type={draft.type}
                about={draft.about}
              />
            );
          })}
        </tbody>
      </Table>
      <MoreLayers
        onAdd={add}
        onFork={fork}
        canFork={selected !== null}
        onUndo={undo}
        onRedo={redo}
        canUndo={draft.canUndo}
        canRedo={draft.canRedo}
        focusName={focusName}
      />
      <p style={{ fontSize: 13, color: "var(--second)", margin: 0 }}>
        One figure gets its low and high from its kind, {format.figure(14)} perhaps {format.figure(9)} to{" "}
        {format.figure(22)}; it stays dotted until somebody types all three under “…”, or jobs have timed it.
      </p>
    </>
  );
}

/** The cylinders a layer lies over, as they stand in the table. */
const overWords = (over: number[], all: number) => (over.length === all && all > 1 ? "all" : over.join(" "));

const others = (fork: string[], id: string, steps: { id: string; label: string }[]) =>
  fork
    .filter((one) => one !== id)
    .map((one) => steps.find((step) => step.id === one)?.label ?? one)
    .join(", ");
