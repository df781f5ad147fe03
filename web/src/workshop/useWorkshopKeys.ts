import { useKeys } from "../shared/keys";
import { letter, useCylinderKeys } from "../shared/useCylinderKeys";

interface Wanted {
  cylinders: number[];
  press: (cylinder: number) => void;
  another: () => void;
  fork: () => void;
  undo: () => void;
  redo: () => void;
  keep: () => void;
}

/** The keys of the workshop: digits press cylinders for the layer in hand. */
export function useWorkshopKeys({ cylinders, press, another, fork, undo, redo, keep }: Wanted): void {
  const digits = useCylinderKeys(cylinders, press, (number) => `The layer in hand lies over ${number}, or not`);
  useKeys([
    ...digits,
    letter("l", "Another layer", another),
    letter("f", "The layer in hand and the next: one of them is enough", fork),
    letter("z", "Undo", undo),
    letter("y", "Redo", redo),
    letter("s", "Keep as a revision", keep),
  ]);
}
