import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Calendar } from "../api/client";
import { Asked, Heading, Mono, Notice, Small, Strong } from "../shared/parts";
import { Row } from "./CalendarRow";

/** Links by which phones and other programs read the calendar, each until it is withdrawn. */
export function CalendarLinks({ people }: { people: Calendar["everybody"] }) {
  const queries = useQueryClient();
  const page = useQuery({ queryKey: ["calendar-feeds"], queryFn: api.calendarFeeds });
  const after = { onSettled: () => queries.invalidateQueries({ queryKey: ["calendar-feeds"] }) };
  const make = useMutation({
    mutationFn: (person: number | null) => api.makeFeed(person, crypto.randomUUID()),
    ...after,
  });
  const withdraw = useMutation({ mutationFn: api.withdrawFeed, ...after });
  const problem = page.error ?? make.error ?? withdraw.error;
  const whose = [{ id: null, name: "The whole shop" }, ...people];
  return (
    <section aria-label="In other calendars">
      <Heading>
        <span>In other calendars</span>
        <Small>whoever has a link reads it, without signing in</Small>
      </Heading>
      {page.data &&
        whose.map(({ id, name }) => {
          const feed = page.data.feeds.find((one) => one.person === id);
          return (
            <Row key={id ?? "shop"}>
              <span className="name">
                <Strong>{name}</Strong>
                {feed && (
                  <>
                    <br />
                    <Mono style={{ overflowWrap: "anywhere", userSelect: "all" }}>{feed.url}</Mono>
                  </>
                )}
              </span>
              {feed ? (
                <Asked onPress={() => withdraw.mutate(feed.id)} aria-label={`withdraw the link of ${name}`}>
                  withdraw
                </Asked>
              ) : (
                <Asked onPress={() => make.mutate(id)} aria-label={`make a link for ${name}`}>
                  make a link
                </Asked>
              )}
            </Row>
          );
        })}
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
    </section>
  );
}
