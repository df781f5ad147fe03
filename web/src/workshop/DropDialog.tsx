import { useMutation } from "@tanstack/react-query";
import { api } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Button, Notice } from "../shared/parts";

interface Props {
  code: string;
  /** Whether the library has the engine already. */
  isKept: boolean;
  onDropped: () => void;
  onClose: () => void;
}

/** What was drawn is thrown away only when somebody says so twice. */
export function DropDialog({ code, isKept, onDropped, onClose }: Props) {
  const drop = useMutation({ mutationFn: () => api.dropDraft(code), onSuccess: onDropped });
  return (
    <Dialog title="Throw this draft away?" onClose={onClose}>
      <p>
        What was drawn since the last kept revision is gone then.{" "}
        {isKept
          ? `${code} stays in the library as it was.`
          : `${code} is not in the library yet: nothing of it is left.`}
      </p>
      {drop.error && (
        <Notice role="alert">
          <p>{drop.error.message}</p>
        </Notice>
      )}
      <p style={{ display: "flex", gap: 10, marginTop: 14 }}>
        <Button $main onPress={onClose}>
          Keep drawing
        </Button>
        <Button onPress={() => drop.mutate()} isPending={drop.isPending}>
          Throw it away
        </Button>
      </p>
    </Dialog>
  );
}
