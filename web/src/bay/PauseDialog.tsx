import type { Mark } from "../api/client";
import { Dialog } from "../shared/Dialog";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { WHYS } from "./whys";

interface Props {
  press: (...marks: Mark[]) => void;
  onClose: () => void;
}

/** Why the clock stands still. */
export function PauseDialog({ press, onClose }: Props) {
  return (
    <Dialog title="Paused, because" onClose={onClose}>
      <Choices>
        {WHYS.map(([why, words]) => (
          <Press
            key={why}
            onPress={() => {
              press(mark("pause", { why }));
              onClose();
            }}
          >
            {words}
          </Press>
        ))}
      </Choices>
    </Dialog>
  );
}
