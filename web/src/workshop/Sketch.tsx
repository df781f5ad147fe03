import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type NewSketch } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Chip } from "../shared/Chip";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { faultsByPath } from "../shared/faults";
import { Button, Notice, Small } from "../shared/parts";
import { type Built, HowBuilt, USUAL } from "./HowBuilt";

const Question = styled.section`
  border-top: 1px solid var(--strong);
  padding: 8px 0 10px;
  h3 {
    font-size: 15px;
    font-weight: 650;
    margin-bottom: 6px;
  }
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
  .layer {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    padding: 3px 0;
  }
  .layer > b {
    min-width: 176px;
    font-weight: 550;
  }
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 20px;
  @media (max-width: 560px) {
    grid-template-columns: 1fr;
  }
`;
const MOVES: [NewSketch["moves"][number], string][] = [
  ["throttle", "throttle body"],
  ["harness", "harness"],
  ["module", "control module"],
  ["coolant", "coolant is opened"],
  ["tilt", "engine is tilted"],
];

interface Props {
  onClose: () => void;
  onSketched: (code: string) => void;
}

/** Five questions on the phone, and there is an engine to quote with. It says that it is provisional. */
export function Sketch({ onClose, onSketched }: Props) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [built, setBuilt] = useState<Built>(USUAL);
  const [layers, setLayers] = useState<Record<string, number[]>>({});
  const [moves, setMoves] = useState<NewSketch["moves"]>([]);
  const [construction, setConstruction] = useState<string>("one-piece");
  // What may lie over the plugs, from the top down, and over which of them it usually does.
  const offered = useQuery({
    queryKey: ["offered-layers", built],
    queryFn: () => api.offeredLayers(built),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const make = useMutation({
    mutationFn: () =>
      api.sketch(
        {
          ...built,
          name,
          layers: (offered.data?.layers ?? [])
            .map(({ label }) => ({ label, cylinders: layers[label] ?? [] }))
            .filter((layer) => layer.cylinders.length > 0),
          moves,
          plug: { construction: construction as "one-piece" },
        },
        crypto.randomUUID(),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ["engines"] });
      onSketched(made.code);
    },
  });
  const faults = faultsByPath(make.error);
  const numbers = Array.from({ length: built.cylinders }, (_, i) => i + 1);
  const turn = (label: string, usual: number[]) =>
    setLayers((old) => ({ ...old, [label]: old[label]?.length ? [] : usual }));
  const press = (label: string, number: number) =>
    setLayers((old) => {
      const over = old[label] ?? [];
      return {
        ...old,
        [label]: over.includes(number) ? over.filter((one) => one !== number) : [...over, number].sort((a, b) => a - b),
      };
    });
  return (
    <Dialog title="Sketch the engine" onClose={onClose} wide>
      <Question>
        <h3>1. How is it built, how does it sit, what fires it?</h3>
        <HowBuilt
          built={built}
          onBuilt={(next) => {
            setBuilt(next);
            setLayers({});
          }}
          problem={faults["/cylinders"]}
        />
      </Question>
      <Question>
        <h3>2. What lies over which plugs?</h3>
        {(offered.data?.layers ?? []).map(({ label, cylinders }) => {
          const over = layers[label] ?? [];
          return (
            <div className="layer" key={label} role="group" aria-label={label}>
              <b>
                <Chip isSelected={over.length > 0} onChange={() => turn(label, cylinders)}>
                  {label}
                </Chip>
              </b>
              {over.length > 0 &&
                numbers.map((number) => (
                  <Chip
                    key={number}
                    $round
                    aria-label={`${label} over ${number}`}
                    isSelected={over.includes(number)}
                    onChange={() => press(label, number)}
                  >
                    {number}
                  </Chip>
                ))}
            </div>
          );
        })}
      </Question>
      <Question>
        <h3>3. What moves with it?</h3>
        <div className="chips">
          {MOVES.map(([id, text]) => (
            <Chip
              key={id}
              isSelected={moves.includes(id)}
              onChange={(on) => setMoves((old) => (on ? [...old, id] : old.filter((one) => one !== id)))}
            >
              {text}
            </Chip>
          ))}
        </div>
      </Question>
      <Pair>
        <Question>
          <h3>4. What plugs has it?</h3>
          <Choice
            label="Construction"
            value={construction}
            options={["one-piece", "one-piece-long-reach", "multi-piece"].map((id) => ({
              id,
              text: id.replaceAll("-", " "),
            }))}
            onPick={setConstruction}
          />
        </Question>
        <Question>
          <h3>5. What do you call it?</h3>
          <Field
            label="Name"
            value={name}
            onChange={setName}
            maxLength={120}
            help="a code is given; both can be changed"
          />
        </Question>
      </Pair>
      {make.error && Object.keys(faults).length === 0 && (
        <Notice role="alert">
          <p>{make.error.message}</p>
        </Notice>
      )}
      <p style={{ marginTop: 10 }}>
        <Button $main onPress={() => make.mutate()} isPending={make.isPending}>
          Quote with this
        </Button>{" "}
        <Small>Every page and paper says that it is provisional, until somebody draws it in the workshop.</Small>
      </p>
    </Dialog>
  );
}
