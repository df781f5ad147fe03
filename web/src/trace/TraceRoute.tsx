import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api } from "../api/client";
import { Loaded } from "../shared/Loaded";
import { Trace } from "./Trace";

/** Finding the fault of one quote's car. */
export function TraceRoute() {
  const { id = "" } = useParams();
  const page = useQuery({
    queryKey: ["trace", id],
    queryFn: () => api.trace(id),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  return (
    <Loaded query={page} opening="Opening the trace…" back="/" backWords="Back to the Counter">
      {(data) => <Trace key={id} page={data} />}
    </Loaded>
  );
}
