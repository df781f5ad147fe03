import { Button, Notice } from "../shared/parts";

/** In place of a screen that could not be loaded or drawn. What was written before is with the server. */
export function ScreenMissing() {
  return (
    <main style={{ maxWidth: 560, margin: "12vh auto", padding: "0 20px" }}>
      <Notice role="alert">
        <p>
          This screen could not be loaded. What you had saved is safe. If the server was restarted, loading again brings
          it back.
        </p>
        <Button $main onPress={() => window.location.reload()}>
          Load again
        </Button>
      </Notice>
    </main>
  );
}
