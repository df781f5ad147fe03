import { useEffect } from "react";
import { useParams } from "react-router";
import { useSession } from "../session/SessionGate";
import { CardScreen } from "./CardScreen";

/** The card of the job in the address; from now on it opens with no connection, too. */
export function CardRoute() {
  const { id = "" } = useParams();
  const { session } = useSession();
  useEffect(() => {
    void navigator.serviceWorker?.register("/sw.js").catch(() => undefined);
  }, []);
  return <CardScreen key={id} job={id} session={session} />;
}
