import { useQuery } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import { api } from "../api/client";
import { Loaded } from "../shared/Loaded";
import { Practice } from "./Practice";

const anyCar = () => String(1 + ((crypto.getRandomValues(new Uint32Array(1))[0] ?? 0) % 999_999_999));

/** A made-up car, by its number in the address; without one, any. */
export function PracticeRoute() {
  const { seed } = useParams();
  const car = useQuery({
    queryKey: ["practice", seed],
    queryFn: () => api.practice(seed ?? ""),
    enabled: seed !== undefined,
    staleTime: Infinity,
  });
  if (seed === undefined) return <Navigate to={`/practice/${anyCar()}`} replace />;
  return (
    <Loaded query={car} opening="Bringing a car in…" back="/" backWords="Back to the Counter">
      {(data) => <Practice key={seed} car={data} />}
    </Loaded>
  );
}
