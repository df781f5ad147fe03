import { useQuery } from "@tanstack/react-query";
import { api } from "../api/client";
import { Heading, Small } from "../shared/parts";
import { Promises } from "./Promises";

/** Were cars ready when it was said? Every promise of a finished job, against the chance it was given at. */
export function PromisesOfWhen() {
  const page = useQuery({ queryKey: ["ledger", "kept"], queryFn: api.keptPromises });
  if (!page.data) return null;
  const { promises, said, share, low, high } = page.data;
  return (
    <section aria-label="Promises of when">
      <Heading style={{ marginTop: 16 }}>Was it ready when we said?</Heading>
      {said === null ? (
        <Small as="p">No job that had a time promised is finished yet.</Small>
      ) : (
        <Promises
          rows={[{ promised: Math.round(said * 100), share: { share, low, high } }]}
          count={promises}
          of={promises === 1 ? "promise" : "promises"}
        />
      )}
    </section>
  );
}
