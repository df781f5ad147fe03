import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, type Finding, type JobCard } from "../api/client";
import { KINDS } from "../quote/vehicle/findings";
import type { Formatter } from "../shared/format";
import { Heading, Notice } from "../shared/parts";
import { Press } from "./parts";

interface Props {
  card: JobCard;
  format: Formatter;
  isAdvisor: boolean;
}

/** What was found would take: priced beside what is open, and from here into the quote. */
export function Proposals({ card, format, isAdvisor }: Props) {
  const into = useMutation({
    mutationFn: (id: string) => api.proposeFound(card.job.id, id),
    onSuccess: ({ quote_id }) => window.location.assign(`/quotes/${quote_id}`),
  });
  const shown = card.proposals.filter(
    (row) => row.added_cents !== null || row.lacking || isToClean(card, row) || row.follow_up_weeks !== null,
  );
  if (shown.length === 0) return null;
  return (
    <section aria-label="For what was found">
      <Heading>For what was found</Heading>
      {shown.map((row) => (
        <p key={row.id} style={{ padding: "6px 0", borderBottom: "1px solid var(--rule)" }}>
          {row.added_cents !== null && (
            <>
              {worksOf(row)}: {format.signed(row.added_cents)}, {format.hours(row.added_hours ?? 0)} h more.{" "}
              {isAdvisor ? (
                <Press
                  style={{ minHeight: 44, fontSize: 15 }}
                  onPress={() => into.mutate(row.id)}
                  isPending={into.isPending}
                >
                  Into the quote
                </Press>
              ) : (
                "The advisor has it."
              )}{" "}
            </>
          )}
          {row.lacking &&
            (isAdvisor ? (
              <>
                This engine&apos;s profile has no part for it.{" "}
                <Link to={`/quotes/${card.job.quote_id}?line=${encodeURIComponent(lineOf(row))}`}>
                  Put it into the quote by hand
                </Link>
                .{" "}
              </>
            ) : (
              "This engine's profile has no part for it: the advisor prices it by hand. "
            ))}
          {isToClean(card, row) && "Clean the well again before the new plug. "}
          {row.follow_up_weeks !== null && `Or clean it, and look again in ${row.follow_up_weeks} weeks.`}
        </p>
      ))}
      {into.error && (
        <Notice role="alert">
          <p>{into.error.message}</p>
        </Notice>
      )}
    </section>
  );
}

/** What would be done about it: work of the profile, and lines by hand. */
const worksOf = ({ targets, lines }: JobCard["proposals"][number]): string =>
  [...targets, ...lines].map((one) => one.label).join(", ");

/** What a line by hand is called that mends it, until the advisor says more. */
const lineOf = ({ finding, cylinder }: JobCard["proposals"][number]): string =>
  `${KINDS[finding as Finding["kind"]]}${cylinder === null ? "" : `, cylinder ${cylinder}`}`;

/** A well is cleaned again before the new plug, not after it is in. */
const isToClean = (card: JobCard, row: JobCard["proposals"][number]): boolean =>
  row.clean &&
  !card.sheet.plugs.some((plug) => plug.cylinder === row.cylinder && card.state.plugs[plug.key]?.in !== undefined);
