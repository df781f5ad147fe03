import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, type EngineProfile as Profile, Refused } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { FileChoice, OwnersYes } from "../shared/ImportSteps";
import { Mono, Notice, Strong } from "../shared/parts";
import { readText } from "../shared/readText";
import { scrolls } from "../shared/scrolls";

const Lines = styled.ul`
  margin: 8px 0;
  padding: 0;
  list-style: none;
  max-height: 300px;
  ${scrolls}
  border-top: 1px solid var(--strong);
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--rule);
    font-size: 14px;
    overflow-wrap: anywhere;
  }
`;
const LARGEST = 4_000_000;

/** Import in two steps: the report of what the file would change, then a yes. Nothing is stored before it. */
export function ImportDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [profile, setProfile] = useState<Profile | null>(null);
  const [name, setName] = useState("");
  const [unread, setUnread] = useState("");
  const report = useMutation({ mutationFn: (body: Profile) => api.reportEngine(body) });
  const keep = useMutation({
    mutationFn: (body: Profile) => api.importEngine(body, crypto.randomUUID()),
    onSuccess: (done) => {
      void queries.invalidateQueries({ queryKey: ["engines"] });
      void queries.invalidateQueries({ queryKey: ["engine", done.code] });
      onClose();
      navigate(`/engines/${encodeURIComponent(done.code)}`);
    },
  });

  const read = async (file: File) => {
    setName(file.name);
    setUnread("");
    setProfile(null);
    report.reset();
    keep.reset();
    const { text, unread: wrong = "" } = await readText(
      file,
      LARGEST,
      "An engine profile is a few hundred kilobytes at most.",
    );
    if (text === undefined) return setUnread(wrong);
    try {
      const parsed: unknown = JSON.parse(text);
      if (typeof parsed !== "object" || parsed === null || Array.isArray(parsed))
        throw new SyntaxError("not an object");
      setProfile(parsed as Profile);
      report.mutate(parsed as Profile);
    } catch (error) {
      setUnread(`${file.name} is not a JSON object: ${(error as Error).message}.`);
    }
  };
  const problem = keep.error ?? report.error;
  const faults =
    problem instanceof Refused ? (problem.body.error.details as { path?: string; message?: string }[]) : [];
  const found = report.data;

  return (
    <Dialog title="Import an engine profile" onClose={onClose} wide>
      <p>
        A file <Mono>NAME.engine.json</Mono>. You see what it would change before anything is stored; a known code
        becomes a new revision, and quotes keep the revision they were made with.
      </p>
      <FileChoice
        types={[".json", "application/json"]}
        name={name}
        isReading={report.isPending}
        isFound={found !== undefined}
        onFile={(file) => void read(file)}
      />
      {(unread || problem) && (
        <Notice role="alert" style={{ marginTop: 12 }}>
          <p>{unread || problem?.message}</p>
          {faults.length > 0 && (
            <Lines>
              {faults.map((fault) => (
                <li key={`${fault.path}-${fault.message}`}>
                  <Mono>{fault.path}</Mono> {fault.message}
                </li>
              ))}
            </Lines>
          )}
          <p>Nothing was stored. Mend the file and choose it again.</p>
        </Notice>
      )}
      {found && (
        <section aria-label="What the import would do" style={{ marginTop: 12 }}>
          <p>
            <Strong>
              {found.code}, {found.name}
            </Strong>{" "}
            · {found.cylinders} cylinders, {found.steps} steps, {found.targets} pieces of work.{" "}
            {found.same
              ? "It is the same as the newest revision: there is nothing to import."
              : found.known
                ? `It becomes revision ${found.revision}.`
                : "The library does not have it yet."}
          </p>
          {found.changes.length > 0 && (
            <Lines aria-label="Changes">
              {found.changes.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </Lines>
          )}
          {found.warnings.length > 0 && (
            <Lines aria-label="Warnings">
              {found.warnings.map((warning) => (
                <li key={`${warning.path}-${warning.message}`}>
                  Check: <Mono>{warning.path}</Mono> {warning.message}
                </li>
              ))}
            </Lines>
          )}
          {found.unpriced.length > 0 && (
            <p>
              Without a price, so totals with them are incomplete: {found.unpriced.join(", ")}. Set them under Prices.
            </p>
          )}
          <OwnersYes
            does={keep.isPending ? "Importing…" : `Import as revision ${found.revision}`}
            isDisabled={found.same}
            isPending={keep.isPending}
            onYes={() => profile && keep.mutate(profile)}
            onClose={onClose}
          />
        </section>
      )}
    </Dialog>
  );
}
