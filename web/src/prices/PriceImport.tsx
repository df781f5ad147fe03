import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, type PriceReport } from "../api/client";
import { Mono, Small } from "../shared/parts";
import { TableImport } from "../shared/TableImport";
import { scrolls } from "../shared/scrolls";

const Lines = styled.div`
  max-height: 320px;
  ${scrolls}
  margin: 10px 0;
  border-top: 1px solid var(--strong);
  border-bottom: 1px solid var(--strong);
  table {
    width: 100%;
    font-size: 14px;
  }
  td {
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  td:first-child {
    width: 52px;
    color: var(--second);
    white-space: nowrap;
  }
  td:nth-child(2) {
    width: 150px;
  }
`;
const MOST_SHOWN = 300;

/** A price list from a supplier, in two steps: what its rows would change, then a yes. Nothing is stored before it. */
export function PriceImport({ revision, onClose }: { revision: number; onClose: () => void }) {
  const queries = useQueryClient();
  const [job, setJob] = useState("");
  const report = useMutation({
    mutationFn: ({ text, id }: { text: string; id: string }) => api.reportPrices({ csv: text }, id),
  });
  const told = useQuery({
    queryKey: ["progress", job],
    queryFn: () => api.progress(job),
    enabled: report.isPending,
    refetchInterval: 400,
    retry: false,
  });
  const keep = useMutation({
    mutationFn: (text: string) => api.keepPrices({ csv: text, revision }, crypto.randomUUID()),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["prices"] });
      onClose();
    },
    onError: () => void queries.invalidateQueries({ queryKey: ["prices"] }),
  });
  const ask = (text: string) => {
    const id = crypto.randomUUID();
    setJob(id);
    report.mutate({ text, id });
  };
  return (
    <TableImport
      title="Import prices"
      intro={
        <p>
          A CSV file with the columns <Mono>part</Mono>, <Mono>supplier</Mono>, <Mono>cost</Mono>, and any of
          description, kind, unit, on_hand, lead_days, list. What no row names stays as it is.
        </p>
      }
      types={[".csv", "text/csv"]}
      tooLarge="Send the rows that change, or the list in parts."
      report={report}
      ask={ask}
      percent={told.data?.percent}
      keep={keep}
      count={count}
      does={(found) => `Keep ${rows(count(found))} as revision ${found.revision}`}
      doing="Keeping…"
      onClose={onClose}
    >
      {(found) => (
        <>
          <p>{summary(found)}</p>
          {found.added + found.changed + found.rejected > found.rows.length && (
            <Small>Shown: {found.rows.length} of them, those that stay out first.</Small>
          )}
          {found.rows.length > 0 && <Changes rows={found.rows} />}
        </>
      )}
    </TableImport>
  );
}

const count = ({ added, changed }: PriceReport) => added + changed;
const rows = (number: number) => `${number} ${number === 1 ? "row" : "rows"}`;

/** "3 new, 12 changed, 80 as they are; 2 cannot be taken." */
function summary({ added, changed, same, rejected }: PriceReport): string {
  const kept =
    [added && `${added} new`, changed && `${changed} changed`, same && `${same} as they are`]
      .filter(Boolean)
      .join(", ") || "Nothing to keep";
  return `${kept}${rejected ? `; ${rejected} cannot be taken and ${rejected === 1 ? "stays" : "stay"} out` : ""}.`;
}

function Changes({ rows }: { rows: PriceReport["rows"] }) {
  return (
    <Lines tabIndex={0} role="region" aria-label="Rows">
      <table>
        <tbody>
          {rows.slice(0, MOST_SHOWN).map((row) => (
            <tr key={row.line}>
              <td>line {row.line}</td>
              <td>
                <Mono>{row.part || "no part"}</Mono>
              </td>
              <td>
                {row.status === "rejected"
                  ? `Stays out: ${row.reason}.`
                  : row.status === "added"
                    ? `New: ${row.description || "no description"}`
                    : row.changes.join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_SHOWN && <Small>and {rows.length - MOST_SHOWN} more rows</Small>}
    </Lines>
  );
}
