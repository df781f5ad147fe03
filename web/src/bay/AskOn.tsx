import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api } from "../api/client";
import { Press } from "./parts";

/** Above the limit the customer decides how to go on: one press makes the ways on ready to be asked. */
export function AskOn({ job, isAdvisor }: { job: string; isAdvisor: boolean }) {
  const navigate = useNavigate();
  const ask = useMutation({
    mutationFn: () => api.askWays(job),
    onSuccess: ({ quote_id }) => void navigate(`/quotes/${quote_id}/yes`),
  });
  if (!isAdvisor) return <p>The Counter has it: the advisor asks how to go on.</p>;
  return (
    <p>
      <Press onPress={() => ask.mutate()} isPending={ask.isPending}>
        Ask the customer how to go on
      </Press>
      {ask.error && <strong role="alert"> {ask.error.message}</strong>}
    </p>
  );
}
