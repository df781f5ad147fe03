import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type GarageReport } from "../api/client";
import { Mono, Small } from "../shared/parts";
import { TableImport } from "../shared/TableImport";
import { NeedRows } from "./rows";

/** Cars and owners from a file, in two steps: what its rows would change, then a yes. Nothing is stored before it. */
export function GarageImport({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const report = useMutation({ mutationFn: api.reportGarage });
  const keep = useMutation({
    mutationFn: (text: string) => api.keepGarage(text, crypto.randomUUID()),
    onSuccess: () => {
      ["find", "counter"].forEach((key) => void queries.invalidateQueries({ queryKey: [key] }));
      onClose();
    },
  });
  return (
    <TableImport
      title="Import cars and owners"
      intro={
        <p>
          A CSV file with the column <Mono>plate</Mono>, and any of description, year, engine, odometer_km,
          maker_number, name, phone, email, wishes. What a row leaves empty stays as it is.
        </p>
      }
      types={[".csv", "text/csv"]}
      tooLarge="Send the list in parts."
      report={report}
      ask={report.mutate}
      keep={keep}
      count={(found) => found.added + found.changed}
      onClose={onClose}
    >
      {(found) => (
        <>
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
        </>
      )}
    </TableImport>
  );
}

/** "3 new, 12 changed, 80 as they are; 2 cannot be taken." */
function summary({ added, changed, same, rejected }: GarageReport): string {
  const kept = [added && `${added} new`, changed && `${changed} changed`, same && `${same} as they are`];
  const said = kept.filter(Boolean).join(", ") || "Nothing to take";
  return `${said}${rejected ? `; ${rejected} cannot be taken` : ""}.`;
}
