import { api, type YesPage } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Asked, Button, Notice, Small } from "../shared/parts";
import { ReasonDialog } from "../shared/ReasonDialog";

type Job = NonNullable<YesPage["job"]>;

/** What is taken back: the whole job, or one yes. */
export type TakenBack = "job" | { offer: string; position: number };

interface OffProps {
  job: Job;
  writes: boolean;
  isPending: boolean;
  onCallOff: () => void;
  onTakeUp: (job: string) => void;
}

/** That a job was called off and why, with the way back; else the way to call it off. */
export function JobOff({ job, writes, isPending, onCallOff, onTakeUp }: OffProps) {
  const { format } = useSession();
  const { called_off: off } = job;
  if (!off)
    return writes && !job.handed_over ? (
      <Small as="p">
        <Asked onPress={onCallOff}>The customer calls job {job.number} off</Asked>
      </Small>
    ) : null;
  if (off.struck)
    return (
      <Notice role="status" style={{ marginTop: 14 }}>
        <p>Nothing is agreed to on job {job.number} any more. A new yes takes it up again.</p>
      </Notice>
    );
  return (
    <Notice role="status" style={{ marginTop: 14 }}>
      <p>
        Job {job.number} is called off: {off.reason}
        <Small>
          {" "}
          · {format.when(off.at)}
          {off.by && `, by ${off.by}`}
        </Small>
      </p>
      {job.begun && <p>What was done by then stays agreed to.</p>}
      {writes && (
        <p>
          <Button onPress={() => onTakeUp(job.id)} isPending={isPending}>
            Take it up again
          </Button>
        </p>
      )}
    </Notice>
  );
}

const TOLD = "The customer is told where they were written to.";
const BEGUN = "The card stays until the car is handed over, and what was done stays agreed to.";
const NOT_BEGUN = "It leaves the bay, and nothing is agreed to any more. It can be taken up again.";
const STRUCK =
  "It stays in the record with your name and the reason beside it, and nothing follows from it any more. " +
  "The quote can be offered again.";

interface Props {
  what: TakenBack;
  job: Job;
  isPending: boolean;
  problem: Error | null;
  onDo: (run: () => Promise<YesPage>) => void;
  onClose: () => void;
}

/** Why something is taken back, and what follows from it. */
export function TakeBack({ what, job, isPending, problem, onDo, onClose }: Props) {
  const rest = { isPending, problem, onClose };
  if (what === "job")
    return (
      <ReasonDialog
        title={`Call job ${job.number} off`}
        follows={`${job.begun ? BEGUN : NOT_BEGUN} ${TOLD}`}
        act="Call it off"
        placeholder="the car was sold"
        onAct={(reason) => onDo(() => api.callOff(job.id, reason))}
        {...rest}
      />
    );
  return (
    <ReasonDialog
      title="Strike this yes"
      follows={`${STRUCK} ${TOLD}`}
      act="Strike it"
      placeholder="kept on the wrong quote"
      onAct={(reason) => onDo(() => api.strikeYes(what.offer, what.position, reason))}
      {...rest}
    />
  );
}
