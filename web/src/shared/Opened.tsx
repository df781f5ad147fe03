import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import styled from "styled-components";
import { Button, Notice } from "./parts";

const Middle = styled.main`
  padding: 40px;
`;

interface Props<T> {
  page: UseQueryResult<T>;
  /** "the quote" */
  what: string;
  children: (data: T) => ReactNode;
}

/** What a screen opens with: it waits in words, and says what is wrong with a way to try again. */
export function Opened<T>({ page, what, children }: Props<T>) {
  if (page.isPending) return <Middle aria-busy="true">Opening {what}…</Middle>;
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
  return children(page.data);
}
