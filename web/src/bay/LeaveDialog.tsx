import { useState } from "react";
import type { CardPiece, Mark } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/fields/Field";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { title } from "./words";

interface Props {
  piece: CardPiece;
  press: (...marks: Mark[]) => void;
  onClose: () => void;
}

/** A piece that is not done, with the reason it is not. */
export function LeaveDialog({ piece, press, onClose }: Props) {
  const [why, setWhy] = useState("");
  return (
    <Dialog title={`Leave it: ${title(piece)}`} onClose={onClose}>
      <Field label="Why" value={why} onChange={setWhy} placeholder="at the owner's wish" maxLength={120} autoFocus />
      <Choices>
        <Press
          $main
          isDisabled={why.trim() === ""}
          onPress={() => {
            press(mark("left", { piece: piece.id, why: why.trim() }));
            onClose();
          }}
        >
          Leave it
        </Press>
      </Choices>
    </Dialog>
  );
}
