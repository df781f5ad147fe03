import { Link } from "react-router";
import type { JobCard } from "../api/client";
import { list } from "../shared/format";
import { Notice } from "../shared/parts";
import { testWords } from "../trace/words";

/** What the trace of this car asks the bay: the next test, and which parts sit where they did not come from. */
export function ToFindOut({ card }: { card: JobCard }) {
  const { trace, job } = card;
  if (!trace) return null;
  const { next, moved, complaint, advice } = trace;
  const asks = next && (advice === "test" || advice === "suspect");
  if (!asks && moved.length === 0) return null;
  return (
    <Notice role="status" className="wide" aria-label="To find out">
      {asks && (
        <p>
          {complaint && `“${complaint}” `}
          To find out: <Link to={`/quotes/${job.quote_id}/trace`}>{testWords(next).toLowerCase()}</Link>, about{" "}
          {Math.round(next.minutes)} min.
        </p>
      )}
      {moved.map((part) => (
        <p key={`${part.kind}-${part.from.join()}`}>
          The {part.kind} of {list(part.from)} sits at {list(part.now)}: back, or left there knowingly.
        </p>
      ))}
    </Notice>
  );
}
