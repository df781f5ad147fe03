import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type ArchiveReport } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Choice } from "../shared/fields/Choice";
import { Field } from "../shared/fields/Field";
import { FileChoice, OwnersYes } from "../shared/ImportSteps";
import { Notice, Small } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";
import { scrolls } from "../shared/scrolls";

const Table = styled.table`
  font-size: 14px;
  margin-top: 12px;
  ${ruledTable(8, 4)}
  small {
    display: block;
    color: var(--second);
    overflow-wrap: anywhere;
  }
`;
const Scroll = styled.div`
  max-height: 46vh;
  ${scrolls}
`;
const LARGEST = 2_900_000;

type Row = ArchiveReport["rows"][number];
type What = "take" | "skip" | "as";

/** A whole library from one archive: what each file would do, then row by row what becomes of it. */
export function LibraryDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [archive, setArchive] = useState("");
  const [unread, setUnread] = useState("");
  const [chosen, setChosen] = useState<Record<string, { what: What; code: string }>>({});
  const report = useMutation({ mutationFn: (text: string) => api.reportLibrary(text) });
  const usual = (row: Row): What => (row.fault !== null || row.same ? "skip" : "take");
  const of = (row: Row) => chosen[row.file] ?? { what: usual(row), code: "" };
  const rows = report.data?.rows ?? [];
  const keep = useMutation({
    mutationFn: () =>
      api.keepLibrary(
        {
          archive,
          rows: rows.map((row) => {
            const { what, code } = of(row);
            return { file: row.file, do: what === "skip" ? "skip" : "take", code: what === "as" ? code : "" } as const;
          }),
        },
        crypto.randomUUID(),
      ),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["engines"] });
      onClose();
    },
  });
  const read = (file: File) => {
    setName(file.name);
    setUnread("");
    report.reset();
    if (file.size > LARGEST) return setUnread(`${file.name} is larger than 2.9 MB: import its profiles one by one.`);
    const reader = new FileReader();
    reader.onload = () => {
      const text = String(reader.result).split(",")[1] ?? "";
      setArchive(text);
      report.mutate(text);
    };
    reader.readAsDataURL(file);
  };
  const taken = rows.filter((row) => of(row).what !== "skip").length;
  const problem = unread || (keep.error ?? report.error)?.message;
  return (
    <Dialog title="Import a library" onClose={onClose} wide>
      <p>
        One ZIP of engine profiles. You see what each would change before anything is stored; of a known code you choose
        whether it becomes a revision, stays out, or takes another code.
      </p>
      <FileChoice
        types={[".zip", "application/zip"]}
        name={name}
        isReading={report.isPending}
        isFound={rows.length > 0}
        onFile={read}
      />
      {problem && (
        <Notice role="alert" style={{ marginTop: 12 }}>
          <p>{problem}</p>
        </Notice>
      )}
      {rows.length > 0 && (
        <section aria-label="What the import would do">
          <Scroll tabIndex={0} role="region" aria-label="Profiles in it">
            <Table>
              <thead>
                <tr>
                  <th scope="col">Profile</th>
                  <th scope="col">what becomes of it</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.file}>
                    <td>
                      {row.code ? `${row.code}, ${row.name}` : row.file}
                      <small>{told(row)}</small>
                    </td>
                    <td>
                      {row.fault === null && !row.same && (
                        <>
                          <Choice
                            bare
                            label={`${row.code}: what becomes of it`}
                            value={of(row).what}
                            options={[
                              { id: "take", text: `revision ${row.revision}` },
                              { id: "skip", text: "leave it out" },
                              { id: "as", text: "under another code" },
                            ]}
                            onPick={(id) =>
                              setChosen((old) => ({ ...old, [row.file]: { ...of(row), what: id as What } }))
                            }
                          />
                          {of(row).what === "as" && (
                            <Field
                              label="Code"
                              value={of(row).code}
                              maxLength={60}
                              onChange={(code) => setChosen((old) => ({ ...old, [row.file]: { what: "as", code } }))}
                            />
                          )}
                        </>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
          <Small as="p">
            {taken === 0 ? "Nothing of it would be taken." : `${taken} of ${rows.length} would be taken.`}
          </Small>
          <OwnersYes
            does={`Import ${taken}`}
            isDisabled={taken === 0}
            isPending={keep.isPending}
            onYes={() => keep.mutate()}
            onClose={onClose}
          />
        </section>
      )}
    </Dialog>
  );
}

function told(row: Row): string {
  if (row.fault !== null) return row.fault;
  if (row.same) return "The same as the newest revision.";
  if (row.changes.length === 0) return "New in the library.";
  return row.changes.slice(0, 3).join(" · ") + (row.changes.length > 3 ? ` · and ${row.changes.length - 3} more` : "");
}
