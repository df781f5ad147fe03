import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type GarageReport } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { FileChoice, OwnersYes } from "../shared/ImportSteps";
import { Mono, Notice, Small } from "../shared/parts";
import { readText } from "../shared/readText";
import { NeedRows } from "./rows";

const LARGEST = 3_000_000;

/** Cars and owners from a file, in two steps: what its rows would change, then a yes. Nothing is stored before it. */
export function GarageImport({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const [csv, setCsv] = useState("");
  const [name, setName] = useState("");
  const [unread, setUnread] = useState("");
  const report = useMutation({ mutationFn: api.reportGarage });
  const keep = useMutation({
    mutationFn: () => api.keepGarage(csv, crypto.randomUUID()),
    onSuccess: () => {
      ["find", "counter"].forEach((key) => void queries.invalidateQueries({ queryKey: [key] }));
      onClose();
    },
  });
  const read = async (file: File) => {
    report.reset();
    keep.reset();
    const { text = "", unread: wrong = "" } = await readText(file, LARGEST, "Send the list in parts.");
    setName(file.name);
    setUnread(wrong);
    setCsv(text);
    if (!wrong) report.mutate(text);
  };
  const problem = unread || (keep.error ?? report.error)?.message;
  const found = report.data;

  return (
    <Dialog title="Import cars and owners" onClose={onClose} wide>
      <p>
        A CSV file with the column <Mono>plate</Mono>, and any of description, year, engine, odometer_km, maker_number,
        name, phone, email, wishes. What a row leaves empty stays as it is.
      </p>
      <FileChoice
        types={[".csv", "text/csv"]}
        name={name}
        isReading={report.isPending}
        isFound={found !== undefined}
        onFile={(file) => void read(file)}
      />
      {problem && (
        <Notice role="alert" style={{ marginTop: 12 }}>
          <p>{problem}</p>
          <p>Nothing was stored.</p>
        </Notice>
      )}
      {found && !problem && (
        <section aria-label="What the import would do" style={{ marginTop: 12 }}>
          <p>{summary(found)}</p>
          <NeedRows>
            {found.rows.map((row) => (
              <li key={row.line} style={{ gridTemplateColumns: "64px 110px minmax(0, 1fr)", minHeight: 0 }}>
                <Small>line {row.line}</Small>
                <Mono>{row.plate || "no plate"}</Mono>
                <span>{row.reason ? `stays out: ${row.reason}` : row.changes.join(", ") || "a new car"}</span>
              </li>
            ))}
          </NeedRows>
          <OwnersYes
            does={keep.isPending ? "Taking…" : `Take ${found.added + found.changed}`}
            isDisabled={found.added + found.changed === 0 || keep.isPending}
            onYes={() => keep.mutate()}
            onClose={onClose}
          />
        </section>
      )}
    </Dialog>
  );
}

/** "3 new, 12 changed, 80 as they are; 2 cannot be taken." */
function summary({ added, changed, same, rejected }: GarageReport): string {
  const kept = [added && `${added} new`, changed && `${changed} changed`, same && `${same} as they are`];
  const said = kept.filter(Boolean).join(", ") || "Nothing to take";
  return `${said}${rejected ? `; ${rejected} cannot be taken` : ""}.`;
}
