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
  report: Pick<UseMutationResult<Report, Error, unknown>, "data" | "isPending" | "error" | "reset">;
  /** Asks for the report on a text. */
  ask: (text: string) => void;
  /** How far the report is. */
  percent?: number | null;
  keep: UseMutationResult<unknown, Error, string>;
  /** How many rows a yes would take. */
  count: (report: Report) => number;
  /** What the yes is called, where it does not just take rows: before it, and while it is carried out. */
  does?: (report: Report) => string;
  doing?: string;
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
  ask,
  percent,
  keep,
  count,
  does = (found) => `Take ${count(found)}`,
  doing = "Taking…",
  children,
  onClose,
}: Props<Report>) {
  const { csv, name, read, problem } = useImport({ ...report, ask }, keep, tooLarge);
  const found = report.data;
  return (
    <Dialog title={title} onClose={onClose} wide>
      {intro}
      <FileChoice
        types={types}
        name={name}
        isReading={report.isPending}
        percent={percent}
        isFound={found !== undefined}
        onFile={(file) => void read(file)}
      />
      <ImportReport problem={problem}>
        {found && (
          <>
            {children(found)}
            <OwnersYes
              does={keep.isPending ? doing : does(found)}
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
