import { useState } from "react";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { Button } from "../shared/parts";

interface Props {
  revision: number;
  onKeep: (why: string) => void;
  onClose: () => void;
}

/** Why the engine is changed, for whoever asks a year later. */
export function KeepDialog({ revision, onKeep, onClose }: Props) {
  const [why, setWhy] = useState("");
  return (
    <Dialog title={`Keep as revision ${revision}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onKeep(why);
        }}
      >
        <Field
          label="Why"
          value={why}
          onChange={setWhy}
          maxLength={200}
          autoFocus
          help="Open quotes keep the revision they were made with, and are offered this one."
        />
        <p style={{ marginTop: 14 }}>
          <Button $main type="submit">
            Keep it
          </Button>
        </p>
      </form>
    </Dialog>
  );
}
