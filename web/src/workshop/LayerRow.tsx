import { type DragEvent, memo } from "react";
import styled from "styled-components";
import type { EngineProfile } from "../api/client";
import { depthInk, onDepth } from "../shared/depth";
import { LiveNumber } from "../shared/fields/LiveNumber";
import { Button } from "../shared/parts";
import type { Origin } from "./edits";
import { ForkMark } from "./ForkMark";
import type { EngineDraft } from "./useEngineDraft";
import { originWords } from "./words";

const Depth = styled.button<{ $ink: string; $on: string }>`
  width: 30px;
  height: 26px;
  border: 1.2px solid var(--ink);
  border-radius: 5px;
  background: ${(p) => p.$ink};
  color: ${(p) => p.$on};
  cursor: grab;
  font-size: 13px;
`;

type Step = EngineProfile["steps"][number];

interface Props extends Pick<EngineDraft, "act" | "type" | "about"> {
  step: Step;
  /** Its place from the top, from 0. */
  at: number;
  /** How many layers there are. */
  layers: number;
  /** The cylinders it lies over, as written. */
  over: string;
  /** What it is an alternative to, as written; undefined for none. */
  fork?: string;
  isFirstOfFork: boolean;
  /** Where its minutes come from. */
  remove: Origin;
  refit: Origin;
  removeFault?: string;
  refitFault?: string;
  isSelected: boolean;
  onSelect: (step: string) => void;
  onUnfold: (step: string) => void;
  /** A layer was dropped at a place. */
  onDrop: (step: string, to: number) => void;
}

/** One layer: its depth, its name, what it lies over, its minutes. Drawn anew only when it changes. */
export const LayerRow = memo(function LayerRow(props: Props) {
  const { step, at, layers, over, fork, isFirstOfFork, isSelected, onSelect, onUnfold, onDrop } = props;
  const { act, type, about } = props;
  const deep = Math.min(at + 1, layers);
  const deepest = Math.max(6, layers);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    onDrop(event.dataTransfer.getData("text/plain"), at);
  };
  const beside = [fork && `or ${fork}`, notes(step)].filter(Boolean).join(" · ");
  const minutes = (key: "remove" | "refit", problem?: string) => (
    <td
      className="figure minutes"
      data-guessed={props[key].from === "typed" ? undefined : ""}
      title={originWords(props[key])}
    >
      <LiveNumber
        bare
        label={`${step.label}, minutes ${key === "remove" ? "off" : "on"}`}
        value={step[key]?.[1] ?? null}
        onValue={(value) => about(["steps", at, key], value)}
        problem={problem}
      />
    </td>
  );
  return (
    <tr aria-current={isSelected || undefined} onFocus={() => onSelect(step.id)}>
      <td>
        <Depth
          type="button"
          $ink={depthInk(deep, deepest)}
          $on={onDepth(deep, deepest)}
          draggable
          aria-label={`Layer ${at + 1}, ${step.label}: drag, or Alt and an arrow, to move it`}
          aria-pressed={isSelected}
          onClick={() => onSelect(step.id)}
          onDragStart={(event) => event.dataTransfer.setData("text/plain", step.id)}
          onDragOver={(event) => event.preventDefault()}
          onDrop={drop}
          onKeyDown={(event) => {
            const by = event.altKey ? ({ ArrowUp: -1, ArrowDown: 1 }[event.key] ?? 0) : 0;
            if (by === 0 || at + by < 0) return;
            event.preventDefault();
            act({ do: "depth", step: step.id, to: at + by });
          }}
        >
          {at + 1}
        </Depth>
        {fork !== undefined && <ForkMark isFirst={isFirstOfFork} />}
      </td>
      <td className="name">
        <input
          aria-label={`Name of layer ${at + 1}`}
          value={step.label}
          title={step.label}
          onChange={(event) => type(["steps", at, "label"], event.target.value)}
        />
        {beside && <span className="with">{beside}</span>}
      </td>
      <td className="over">{over || "nothing yet"}</td>
      {minutes("remove", props.removeFault)}
      {minutes("refit", props.refitFault)}
      <td>
        <Button className="more" onPress={() => onUnfold(step.id)} aria-label={`All of ${step.label}`}>
          …
        </Button>
      </td>
    </tr>
  );
});

/** What else there is to a layer, in short. */
function notes(step: Step): string {
  if (step.cylinder) return "";
  return [
    step.battery && "battery",
    step.rust_prone && "rusts",
    step.brittle && "brittle",
    (step.people ?? 1) > 1 && `${step.people} people`,
    counted(
      step.seals?.map((seal) => seal.quantity ?? 1),
      "seal",
    ),
    counted(
      step.fasteners?.map((row) => row.count ?? 1),
      "fastener",
    ),
    step.closing?.length && step.closing.map((row) => row.what.toLowerCase()).join(", "),
    step.when && "on some cars",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** How many there are of something; nothing of none. */
function counted(counts: number[] | undefined, what: string): string | false {
  const sum = (counts ?? []).reduce((all, count) => all + count, 0);
  return sum > 0 && `${sum} ${what}${sum === 1 ? "" : "s"}`;
}
