import { type ComponentType, lazy, Suspense } from "react";
import { Dialog } from "./Dialog";

/** How long after its screen a dialog is fetched, so that opening it later neither waits nor fails. */
const SOON_MS = 1_500;

interface Closed {
  onClose: () => void;
}

/**
 * A dialog in a module of its own, which the screen does not wait for.
 * @param load fetches it
 */
export function whenOpened<P extends Closed>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Fetched = lazy(async () => ({ default: await load().catch(() => Missing as ComponentType<P>) }));
  setTimeout(() => load().catch(() => undefined), SOON_MS);
  return function WhenOpened(props: P) {
    return (
      <Suspense fallback={null}>
        <Fetched {...props} />
      </Suspense>
    );
  };
}

function Missing({ onClose }: Closed) {
  return (
    <Dialog title="This could not be fetched" onClose={onClose}>
      <p>The server does not answer. Nothing was lost: close this, and open it again when the server is back.</p>
    </Dialog>
  );
}
