import { Dialog } from "../shared/Dialog";
import { Button } from "../shared/parts";

/** Marks of one job that only this device has. */
export interface Unsent {
  job: string;
  number: number;
  title: string;
  marks: number;
}

interface Props {
  unsent: Unsent[];
  onSignOut: () => void;
  onClose: () => void;
}

/**
 * Signing out would throw away what was marked here and is not at the server. It stands around the pages, not in one:
 * its links are the browser's own.
 */
export function UnsentDialog({ unsent, onSignOut, onClose }: Props) {
  return (
    <Dialog title="Not handed in yet" onClose={onClose}>
      <p>Only this device has these marks. Open the card where there is a connection: it hands them in by itself.</p>
      <ul style={{ padding: 0, margin: "10px 0", listStyle: "none" }}>
        {unsent.map(({ job, number, title, marks }) => (
          <li key={job} style={{ padding: "8px 0" }}>
            <a href={`/bay/${job}`}>
              job {number}, {title}
            </a>
            : {marks} {marks === 1 ? "mark" : "marks"}
          </li>
        ))}
      </ul>
      <Button onPress={onSignOut}>Sign out and throw them away</Button>
    </Dialog>
  );
}
