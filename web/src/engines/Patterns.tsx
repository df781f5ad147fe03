import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, type Pattern, Refused } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { Button, Notice, Small } from "../shared/parts";

const Rows = styled.ul`
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  border-top: 1px solid var(--strong);
  max-height: 52vh;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 12px;
    align-items: center;
    padding: 7px 4px 7px 0;
    border-bottom: 1px solid var(--rule);
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--second);
  }
`;
const Grid = styled.div`
  display: grid;
  gap: 14px;
  margin: 12px 0 16px;
`;

/** Engine profiles that ship with the program, to copy under a code of the shop's own. */
export function Patterns({ onClose }: { onClose: () => void }) {
  const patterns = useQuery({ queryKey: ["patterns"], queryFn: api.patterns, staleTime: Number.POSITIVE_INFINITY });
  const [chosen, setChosen] = useState<Pattern | null>(null);
  if (chosen) return <CopyDialog pattern={chosen} onClose={onClose} />;
  return (
    <Dialog title="Copy a pattern" onClose={onClose} wide>
      <p>
        <Small>
          Choose the one whose layers lie as on your engine. Its minutes, torques and part numbers are examples: check
          them against the maker's service information.
        </Small>
      </p>
      {patterns.error && (
        <Notice role="alert">
          <p>{patterns.error.message}</p>
        </Notice>
      )}
      <Rows tabIndex={0} aria-label="Patterns">
        {patterns.data?.patterns.map((pattern) => (
          <li key={pattern.code}>
            <span>
              {pattern.name}
              <small>
                {pattern.cylinders === 1 ? "one cylinder" : `${pattern.cylinders} cylinders`} ·{" "}
                {pattern.ignition.replaceAll("-", " ")}
                {pattern.notes && ` · ${pattern.notes}`}
              </small>
            </span>
            <Button onPress={() => setChosen(pattern)} aria-label={`Copy ${pattern.name}`}>
              Copy
            </Button>
          </li>
        ))}
      </Rows>
    </Dialog>
  );
}

function CopyDialog({ pattern, onClose }: { pattern: Pattern; onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [code, setCode] = useState("");
  const [name, setName] = useState(pattern.name);
  const copy = useMutation({
    mutationFn: () => api.copyPattern({ pattern: pattern.code, code, name }, crypto.randomUUID()),
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ["engines"] });
      onClose();
      navigate(`/engines/${encodeURIComponent(made.code)}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    copy.mutate();
  };
  const taken = copy.error instanceof Refused && copy.error.code === "code_taken";
  return (
    <Dialog title={`Copy “${pattern.name}”`} onClose={onClose}>
      <form onSubmit={submit}>
        <Grid>
          <Field
            label="Your code for the engine"
            value={code}
            onChange={setCode}
            isRequired
            maxLength={60}
            autoFocus
            help="What the shop calls it; cars are noted with it."
            problem={taken ? copy.error?.message : undefined}
          />
          <Field label="Name" value={name} onChange={setName} isRequired maxLength={120} />
        </Grid>
        {copy.error && !taken && (
          <Notice role="alert">
            <p>{copy.error.message}</p>
          </Notice>
        )}
        <Button $main type="submit" isDisabled={copy.isPending}>
          Copy it into the library
        </Button>
      </form>
    </Dialog>
  );
}
