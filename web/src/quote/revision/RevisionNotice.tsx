import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { api, type QuotePage } from "../../api/client";
import { list } from "../../shared/format";
import { Button, Notice } from "../../shared/parts";

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
  const move = useMutation({
    mutationFn: () => api.renewEngine(page.quote.id),
    onSuccess: (fresh) => queries.setQueryData(["quote", page.quote.id], fresh),
  });
  const behind = page.engine.revision < page.newest_engine_revision;
  if (!behind && page.dropped.length === 0) return null;
  return (
    <Spaced role="status">
      {behind && (
        <p>
          This quote is made with revision {page.engine.revision} of {page.engine.code}; the library has revision{" "}
          {page.newest_engine_revision}. Nothing changes until you move it.
        </p>
      )}
      {page.dropped.length > 0 && (
        <p>This revision of the engine does not have {list(page.dropped)}: taken out of the scope.</p>
      )}
      {move.error && <p role="alert">{move.error.message}</p>}
      {behind && writes && (
        <Button onPress={() => move.mutate()} isDisabled={move.isPending}>
          Use revision {page.newest_engine_revision}
        </Button>
      )}
    </Spaced>
  );
}
