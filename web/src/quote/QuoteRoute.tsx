import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import styled from "styled-components";
import { api } from "../api/client";
import { Button, Notice } from "../shared/parts";
import { QuoteScreen } from "./QuoteScreen";

const Middle = styled.main`
  padding: 40px;
`;

/** Opens a quote; the page itself keeps the working copy from then on. */
export function QuoteRoute() {
  const { id = "" } = useParams();
  const page = useQuery({
    queryKey: ["quote", id],
    queryFn: () => api.quote(id),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });

  if (page.isPending) return <Middle aria-busy="true">Opening the quote…</Middle>;
  if (page.isError)
    return (
      <Middle>
        <Notice role="alert">
          <p>{page.error.message}</p>
          <p>
            <Button onPress={() => void page.refetch()}>Try again</Button>
          </p>
        </Notice>
      </Middle>
    );
  return <QuoteScreen key={`${id}-${page.data.engine.id}`} page={page.data} />;
}
