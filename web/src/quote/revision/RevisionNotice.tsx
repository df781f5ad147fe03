import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { api, type QuotePage } from "../../api/client";
import { list } from "../../shared/format";
import { useSession } from "../../session/SessionGate";
import { Button, Notice, Small } from "../../shared/parts";
import { newerWords } from "./newerWords";

const Spaced = styled(Notice)`
  margin: 8px 18px 0;
  display: flex;
  gap: 8px 16px;
  flex-wrap: wrap;
  align-items: center;
  max-width: none;
  p {
    flex: 1 1 320px;
  }
`;

/** Tells of a newer engine revision in the library, and of what a move to it left behind. */
export function RevisionNotice({ page, writes }: { page: QuotePage; writes: boolean }) {
  const queries = useQueryClient();
  const { format } = useSession();
  const move = useMutation({
    mutationFn: () => api.renewEngine(page.quote.id),
    onSuccess: (fresh) => queries.setQueryData(["quote", page.quote.id], fresh),
  });
  const behind = page.engine.revision < page.newest_engine_revision;
  const newer = useQuery({
    queryKey: ["newer", page.quote.id, page.newest_engine_revision],
    queryFn: () => api.panel(page.quote.id, "newer-engine"),
    enabled: behind,
    staleTime: 0,
  }).data?.newer;
  if (!behind && page.dropped.length === 0) return null;
  return (
    <Spaced role="status">
      {behind && (
        <p>
          This quote is made with revision {page.engine.revision} of {page.engine.code}; the library has revision{" "}
          {page.newest_engine_revision}
          {newer?.why && `: ${newer.why}`}. Nothing changes until you move it.
          {newer?.scopes
            .filter((row) => row.title !== "")
            .map((row) => (
              <Small as="span" key={row.title} style={{ display: "block" }}>
                {newerWords(row, format)}
              </Small>
            ))}
          {newer && newer.changes.length > 0 && (
            <Small as="span" style={{ display: "block" }}>
              {newer.changes.slice(0, 3).join(" · ")}
              {newer.changes.length > 3 && ` · and ${newer.changes.length - 3} more`}
            </Small>
          )}
        </p>
      )}
      {page.dropped.length > 0 && (
        <p>This revision of the engine does not have {list(page.dropped)}: taken out of the scope.</p>
      )}
      {move.error && <p role="alert">{move.error.message}</p>}
      {behind && writes && (
        <Button onPress={() => move.mutate()} isPending={move.isPending}>
          Use revision {page.newest_engine_revision}
        </Button>
      )}
    </Spaced>
  );
}
