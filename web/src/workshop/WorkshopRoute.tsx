import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api } from "../api/client";
import { Loaded } from "../shared/Loaded";
import { Workshop } from "./Workshop";

/** One engine under the pencil. */
export function WorkshopRoute() {
  const { code = "" } = useParams();
  const draft = useQuery({
    queryKey: ["workshop", code],
    queryFn: () => api.draft(code),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  return (
    <Loaded query={draft} opening="Opening the drawing…" back="/engines" backWords="Back to the library">
      {(data) => <Workshop key={code} draft={data} />}
    </Loaded>
  );
}
