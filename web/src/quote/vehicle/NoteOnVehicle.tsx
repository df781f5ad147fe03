import { useMutation } from "@tanstack/react-query";
import { api } from "../../api/client";
import { Button, Notice, Small } from "../../shared/parts";

interface Props {
  vehicleId: string;
  /** What is known now, as the vehicle would keep it. */
  known: () => Parameters<typeof api.noteHistory>[1];
  /** What the server said of what stands in the dialog: it is not in the figures until it is mended. */
  problem: string;
  isDisabled: boolean;
  onClose: () => void;
}

/** The foot of a dialog about a car's past: done, or kept on the vehicle for its next quotes. */
export function NoteOnVehicle({ vehicleId, known, problem, isDisabled, onClose }: Props) {
  const note = useMutation({ mutationFn: () => api.noteHistory(vehicleId, known()) });
  return (
    <>
      {(note.error || problem) && (
        <Notice role="alert">
          <p>{problem || note.error?.message}</p>
        </Notice>
      )}
      <p style={{ marginTop: 12, display: "flex", gap: 10, alignItems: "center", flexWrap: "wrap" }}>
        <Button $main onPress={onClose}>
          Done
        </Button>
        {!isDisabled && (
          <Button onPress={() => note.mutate()} isDisabled={problem !== ""} isPending={note.isPending}>
            Note it on the vehicle
          </Button>
        )}
        <Small role="status">
          {note.isSuccess
            ? "Noted: the next quote of this car starts from it."
            : "This quote alone, unless noted on the vehicle."}
        </Small>
      </p>
    </>
  );
}
