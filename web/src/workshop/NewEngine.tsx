import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Radio, RadioGroup } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, type BeginDraft, type EngineProfile, type Pattern } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { faultsByPath } from "../shared/faults";
import { Field } from "../shared/fields/Field";
import { Pick } from "../shared/fields/Pick";
import { FileChoice } from "../shared/ImportSteps";
import { Button, Notice, Small } from "../shared/parts";
import { readText } from "../shared/readText";
import { type Built, HowBuilt, USUAL } from "./HowBuilt";

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 10px 16px;
  margin-bottom: 12px;
`;
const From = styled(RadioGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 12px;
  [role="radio"],
  label {
    cursor: pointer;
  }
  label {
    padding: 5px 13px;
    border: 1.4px solid var(--ink);
    border-radius: 16px;
    background: var(--sheet);
  }
  label[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
  label[data-focus-visible] {
    outline: 3px solid var(--mark);
    outline-offset: 2px;
  }
`;
const LARGEST = 1_000_000;

type Start = "bare" | "pattern" | "engine" | "file";

/** Begin an engine: with how it is built, a pattern, another engine, or a file. */
export function NewEngine({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const patterns = useQuery({ queryKey: ["patterns"], queryFn: api.patterns, staleTime: Number.POSITIVE_INFINITY });
  const engines = useQuery({ queryKey: ["engines"], queryFn: () => api.engines() });
  const [code, setCode] = useState("");
  const [name, setName] = useState("");
  const [from, setFrom] = useState<Start>("bare");
  const [built, setBuilt] = useState<Built>(USUAL);
  const [pattern, setPattern] = useState<string | null>(null);
  const [engine, setEngine] = useState<string | null>(null);
  const [file, setFile] = useState<{ name: string; profile?: EngineProfile; unread?: string } | null>(null);

  const begin = useMutation({
    mutationFn: (body: BeginDraft) => api.beginDraft(body, crypto.randomUUID()),
    onSuccess: (draft) => {
      void queries.invalidateQueries({ queryKey: ["drafts"] });
      queries.setQueryData(["workshop", draft.code], draft);
      onClose();
      void navigate(`/workshop/${encodeURIComponent(draft.code)}`);
    },
  });
  const faults = faultsByPath(begin.error);
  const start: Record<Start, Partial<BeginDraft> | null> = {
    bare: { bare: built },
    pattern: pattern ? { pattern } : null,
    engine: engine ? { engine } : null,
    file: file?.profile ? { file: file.profile } : null,
  };
  const chosen = start[from];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (chosen) begin.mutate({ code, name, ...chosen });
  };
  const read = async (one: File) => {
    const { text, unread } = await readText(one, LARGEST, "An engine profile is a few hundred kilobytes at most.");
    try {
      setFile({
        name: one.name,
        unread,
        profile: text === undefined ? undefined : (JSON.parse(text) as EngineProfile),
      });
    } catch (error) {
      setFile({ name: one.name, unread: `${one.name} is not JSON: ${(error as Error).message}.` });
    }
  };

  return (
    <Dialog title="A new engine" onClose={onClose} wide>
      <form onSubmit={submit}>
        <Grid>
          <Field
            label="Your code for it"
            value={code}
            onChange={setCode}
            isRequired
            maxLength={60}
            autoFocus
            help="cars are noted with it"
            problem={faults["/code"]}
          />
          <Field label="Name" value={name} onChange={setName} maxLength={120} />
        </Grid>
        <From aria-label="Begin with" value={from} onChange={(id) => setFrom(id as Start)}>
          <Radio value="bare">How it is built</Radio>
          <Radio value="pattern">A pattern</Radio>
          <Radio value="engine">An engine you have</Radio>
          <Radio value="file">A file</Radio>
        </From>
        {from === "bare" && <HowBuilt built={built} onBuilt={setBuilt} problem={faults["/cylinders"]} />}
        {from === "pattern" && (
          <Pick
            label="Pattern"
            value={pattern}
            items={(patterns.data?.patterns ?? []).map(found)}
            onPick={setPattern}
            placeholder="kind, number of cylinders, ignition, what lies on top"
            none="No pattern is found by these words."
            help="how such an engine is built; its minutes are what such steps take elsewhere"
          />
        )}
        {from === "engine" && (
          <Pick
            label="Engine"
            value={engine}
            items={(engines.data?.engines ?? []).map((row) => ({
              id: row.code,
              text: `${row.code}, ${row.name}`,
              more: row.notes,
              words: `${row.code} ${row.name}`,
            }))}
            onPick={setEngine}
            none="No engine of the library is found by these words."
          />
        )}
        {from === "file" && (
          <FileChoice
            types={[".json", "application/json"]}
            name={file?.name ?? ""}
            isReading={false}
            isFound={Boolean(file?.profile)}
            onFile={(one) => void read(one)}
          />
        )}
        {(file?.unread || (begin.error && Object.keys(faults).length === 0)) && (
          <Notice role="alert" style={{ marginTop: 12 }}>
            <p>{from === "file" && file?.unread ? file.unread : begin.error?.message}</p>
          </Notice>
        )}
        {from === "file" && begin.error && Object.keys(faults).length > 0 && (
          <Notice role="alert" style={{ marginTop: 12 }}>
            {Object.entries(faults).map(([path, message]) => (
              <p key={path}>
                {path}: {message}
              </p>
            ))}
          </Notice>
        )}
        <p style={{ marginTop: 16 }}>
          <Button $main type="submit" isDisabled={!chosen || code.trim() === ""} isPending={begin.isPending}>
            Draw it
          </Button>{" "}
          <Small>Nothing is in the library before it is kept.</Small>
        </p>
      </form>
    </Dialog>
  );
}

const found = (pattern: Pattern) => ({
  id: pattern.code,
  text: pattern.name,
  more: pattern.layers.join(", "),
  words: `${pattern.name} ${pattern.cylinders} cylinders ${pattern.ignition} ${pattern.layers.join(" ")}`,
});
