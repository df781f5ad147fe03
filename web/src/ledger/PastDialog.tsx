import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { FileChoice, ImportReport, OwnersYes } from "../shared/ImportSteps";
import { Mono, Small } from "../shared/parts";
import { useImport } from "../shared/useImport";
import { pastWords } from "./words";

/** A past from a file, in two steps: what its rows would bring along, then a yes. Nothing is stored before it. */
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
  const { csv, name, read, problem } = useImport({ ...report, ask: report.mutate }, keep, "Send it year by year.");
  const found = report.data;
  return (
    <Dialog title="Bring a past along" onClose={onClose} wide>
      <p>
        A CSV file, a row a job: <Mono>finished</Mono>, <Mono>engine</Mono>, <Mono>technician</Mono>,{" "}
        <Mono>quoted_hours</Mono>, <Mono>actual_minutes</Mono>, and where they are known trouble_minutes, mean_minutes,
        sd_minutes, reference_hours, id. Or a history as it is exported here, with its steps and plugs.
      </p>
      <Small as="p">Without mean_minutes the estimate is taken to be the one behind the quoted hours.</Small>
      <FileChoice
        types={[".csv", ".json", "text/csv", "application/json"]}
        name={name}
        isReading={report.isPending}
        isFound={found !== undefined}
        onFile={(file) => void read(file)}
      />
      <ImportReport problem={problem}>
        {found && (
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
            <OwnersYes
              does={keep.isPending ? "Taking…" : `Take ${found.added}`}
              isDisabled={found.added === 0}
              isPending={keep.isPending}
              onYes={() => keep.mutate(csv)}
              onClose={onClose}
            />
          </>
        )}
      </ImportReport>
    </Dialog>
  );
}
