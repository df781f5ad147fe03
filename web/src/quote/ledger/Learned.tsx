import type { Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Small } from "../../shared/parts";
import { learnedWords } from "../words";

/** What finished jobs have done to these hours: both figures stay on the quote. */
export function Learned({ learned }: { learned: NonNullable<Sheet["learned"]> }) {
  const { format } = useSession();
  return (
    <Small as="p" style={{ paddingTop: 4 }}>
      {learnedWords(learned, format)}
    </Small>
  );
}
