import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { BookPage, Notice } from "./parts";

interface Props<T> {
  query: UseQueryResult<T>;
  /** Said while it comes. */
  opening: string;
  /** Where to go when it does not. */
  back: string;
  backWords: string;
  children: (data: T) => ReactNode;
}

/** A page once what it shows is here; until then that it is coming, or why it does not. */
export function Loaded<T>({ query, opening, back, backWords, children }: Props<T>) {
  if (query.isPending) return <BookPage aria-busy="true">{opening}</BookPage>;
  if (query.isError)
    return (
      <BookPage>
        <Notice role="alert">
          <p>{query.error.message}</p>
          <p>
            <Link to={back}>{backWords}</Link>
          </p>
        </Notice>
      </BookPage>
    );
  return children(query.data);
}
