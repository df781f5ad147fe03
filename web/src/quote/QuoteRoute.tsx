import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api } from "../api/client";
import { Opened } from "../shared/Opened";
import { QuoteScreen } from "./QuoteScreen";

/** Opens a quote; the page itself keeps the working copy from then on. */
export function QuoteRoute() {
  const { id = "" } = useParams();
  const page = useQuery({
    queryKey: ["quote", id],
    queryFn: () => api.quote(id),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });

  return (
    <Opened page={page} what="the quote">
      {(data) => <QuoteScreen key={`${id}-${data.engine.id}`} page={data} />}
    </Opened>
  );
}
