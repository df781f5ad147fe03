import { sentence } from "../shared/format";
import { Notice } from "../shared/parts";

/** What a reading is asked back for: a slipped unit, a figure nobody can believe. */
export function Questions({ said }: { said?: { questions?: { message: string }[] } }) {
  const questions = said?.questions ?? [];
  if (questions.length === 0) return null;
  return (
    <Notice role="status">
      {questions.map((one) => (
        <p key={one.message}>{sentence(one.message)}</p>
      ))}
    </Notice>
  );
}
