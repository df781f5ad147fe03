import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { LiveNumber } from "../shared/fields/LiveNumber";
import { Button, Notice, Small } from "../shared/parts";
import { ruledTable } from "../shared/ruledTable";
import type { Behind } from "./LedgerRoute";
import { scrolls } from "../shared/scrolls";

const Scroll = styled.div`
  max-height: 52vh;
  ${scrolls}
`;
const Table = styled.table`
  font-size: 14px;
  ${ruledTable(8, 4)}
`;
const Form = styled.form`
  display: grid;
  grid-template-columns: 1fr 2fr auto;
  gap: 12px;
  align-items: end;
  margin-top: 12px;
`;

interface Props {
  behind: Behind;
  onClose: () => void;
}

/** The jobs behind a figure; a wrong one is corrected by an entry against it, with its reason. */
export function JobsDialog({ behind, onClose }: Props) {
  const { account, format } = useSession();
  const queries = useQueryClient();
  const jobs = useQuery({ queryKey: ["ledger", "jobs", behind], queryFn: () => api.ledgerJobs(behind) });
  const [wrong, setWrong] = useState<string | null>(null);
  const [hours, setHours] = useState<number | null>(null);
  const [why, setWhy] = useState("");
  const correct = useMutation({
    mutationFn: () => api.correctEntry(wrong ?? "", { actual_minutes: (hours ?? 0) * 60, why }),
    onSuccess: () => {
      setWrong(null);
      void queries.invalidateQueries({ queryKey: ["ledger"] });
    },
  });
  return (
    <Dialog
      title={`Jobs: ${behind.engine ?? behind.technician ?? (behind.month ? format.month(behind.month) : "all")}`}
      onClose={onClose}
      wide
    >
      {jobs.error && (
        <Notice role="alert">
          <p>{jobs.error.message}</p>
        </Notice>
      )}
      <Scroll tabIndex={0} role="region" aria-label="Jobs">
        <Table>
          <thead>
            <tr>
              <th scope="col">Finished</th>
              <th scope="col">Engine</th>
              <th scope="col">By</th>
              <th scope="col" className="figure">
                quoted, h
              </th>
              <th scope="col" className="figure">
                took, h
              </th>
              <th scope="col" className="figure">
                trouble, h
              </th>
              <th scope="col" className="figure">
                billed
              </th>
              <th scope="col" aria-label="Correct" />
            </tr>
          </thead>
          <tbody>
            {jobs.data?.jobs.map((job) => (
              <tr key={job.id}>
                <td>
                  {format.day(job.finished.slice(0, 10))}
                  {job.why && <Small> corrected: {job.why}</Small>}
                </td>
                <td>{job.engine}</td>
                <td>{job.technician ?? ""}</td>
                <td className="figure">{format.hours(job.quoted_hours)}</td>
                <td className="figure">{format.hours(job.hours)}</td>
                <td className="figure">{format.hours(job.trouble_hours)}</td>
                <td className="figure">{job.billed_cents === null ? "" : format.money(job.billed_cents)}</td>
                <td>
                  {account.role === "owner" && (
                    <Button
                      aria-label={`Correct the job of ${format.day(job.finished.slice(0, 10))}`}
                      onPress={() => {
                        setWrong(job.id);
                        setHours(job.hours);
                      }}
                    >
                      Correct
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      {wrong && (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            correct.mutate();
          }}
        >
          <LiveNumber label="It took, hours" value={hours} onValue={setHours} />
          <Field
            label="Why"
            value={why}
            onChange={setWhy}
            isRequired
            maxLength={200}
            problem={correct.error?.message}
          />
          <Button type="submit" $main isDisabled={!hours || why.trim() === ""} isPending={correct.isPending}>
            Write the correction
          </Button>
        </Form>
      )}
    </Dialog>
  );
}
