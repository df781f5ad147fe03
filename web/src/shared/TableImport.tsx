import type { UseMutationResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Dialog } from "./Dialog";
import { FileChoice, ImportReport, OwnersYes } from "./ImportSteps";
import { useImport } from "./useImport";

interface Props<Report> {
  title: string;
  /** What the file holds. */
  intro: ReactNode;
  types: string[];
  /** What to do about a file that is too large. */
  tooLarge: string;
  report: UseMutationResult<Report, Error, string>;
  keep: UseMutationResult<unknown, Error, string>;
  /** How many rows a yes would take. */
  count: (report: Report) => number;
  children: (report: Report) => ReactNode;
  onClose: () => void;
}

/** A table from a file, in two steps: what its rows would do, then a yes. Nothing is stored before it. */
export function TableImport<Report>({
  title,
  intro,
  types,
  tooLarge,
  report,
  keep,
  count,
  children,
  onClose,
}: Props<Report>) {
  const { csv, name, read, problem } = useImport({ ...report, ask: report.mutate }, keep, tooLarge);
  const found = report.data;
  return (
    <Dialog title={title} onClose={onClose} wide>
      {intro}
      <FileChoice
        types={types}
        name={name}
        isReading={report.isPending}
        isFound={found !== undefined}
        onFile={(file) => void read(file)}
      />
      <ImportReport problem={problem}>
        {found && (
          <>
            {children(found)}
            <OwnersYes
              does={keep.isPending ? "Taking…" : `Take ${count(found)}`}
              isDisabled={count(found) === 0}
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
