import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api } from "../api/client";
import { Mono, Small } from "../shared/parts";
import { TableImport } from "../shared/TableImport";
import { pastWords } from "./words";

/** A past from a file: what its rows would bring along, then a yes. */
export function PastDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const report = useMutation({ mutationFn: api.reportPast });
  const keep = useMutation({
    mutationFn: (text: string) => api.keepPast(text, crypto.randomUUID()),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["ledger"] });
      onClose();
    },
  });
  return (
    <TableImport
      title="Bring a past along"
      intro={
        <>
          <p>
            A CSV file, a row a job: <Mono>finished</Mono>, <Mono>engine</Mono>, <Mono>technician</Mono>,{" "}
            <Mono>quoted_hours</Mono>, <Mono>actual_minutes</Mono>, and where they are known trouble_minutes,
            mean_minutes, sd_minutes, reference_hours, id. Or a history as it is exported here, with its steps and
            plugs.
          </p>
          <Small as="p">Without mean_minutes the estimate is taken to be the one behind the quoted hours.</Small>
        </>
      }
      types={[".csv", ".json", "text/csv", "application/json"]}
      tooLarge="Send it year by year."
      report={report}
      ask={report.mutate}
      keep={keep}
      count={(found) => found.added}
      onClose={onClose}
    >
      {(found) => (
        <>
          <p>{pastWords(found)}</p>
          {found.rows.length > 0 && (
            <ul style={{ maxHeight: "34vh", overflow: "auto", margin: "8px 0" }}>
              {found.rows.map((row) => (
                <li key={row.line}>
                  <Small>line {row.line}</Small> stays out: {row.reason}
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </TableImport>
  );
}
