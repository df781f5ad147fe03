import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Button, Small } from "../shared/parts";
import type { Tracing } from "./useTrace";
import { adviceWords, outcomeWords, SWAP_FIRST, testWords, togetherWords, whyThis } from "./words";

const Card = styled.section`
  border-left: 5px solid var(--ink);
  background: var(--sheet);
  padding: 14px 18px 16px;
  margin: 16px 0;
  h3 {
    font-size: 21px;
    font-weight: 650;
    margin: 4px 0 6px;
  }
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 10px;
  }
`;

/** The next test in one sentence, with its minutes on this engine, and what it showed as one press. */
export function NextTest({ tracing }: { tracing: Tracing }) {
  const { format } = useSession();
  const { sheet, change, isStale } = tracing;
  const [best] = sheet.tests;
  const known = sheet.advice === "repair" || sheet.advice === "elsewhere";
  const minutes = (value: number) => format.figure(Math.round(value));
  return (
    <Card aria-label="What to do now" aria-busy={isStale}>
      <Small>{known ? "now" : "next: what tells most for its minutes"}</Small>
      <h3>{known || !best ? adviceWords(sheet) : testWords(best)}</h3>
      {sheet.together && (
        <p>
          <strong>Renew both here: {togetherWords(sheet.together)}.</strong> They moved together and the fault with
          them.
        </p>
      )}
      {best?.with !== undefined && !known && <p>{SWAP_FIRST}</p>}
      {sheet.advice === "suspect" && <p>{adviceWords(sheet)}</p>}
      {best && !known && <p>{whyThis(sheet.tests, minutes)}</p>}
      {best && known && (
        <p>
          <Small>
            To be surer still: {testWords(best).toLowerCase()}, {minutes(best.minutes)} min.
          </Small>
        </p>
      )}
      {best && (
        <div className="chips" role="group" aria-label={testWords(best)}>
          {outcomes(best, sheet.outcomes[best.test] ?? []).map(({ outcome, run, words }) => (
            <Button
              key={words}
              onPress={() =>
                change((old) => ({
                  ...old,
                  evidence: [
                    ...(old.evidence ?? []),
                    {
                      test: best.test,
                      cylinder: best.cylinder,
                      ...(best.with ? { with: best.with } : {}),
                      outcome,
                      ...(run ? { run } : {}),
                      minutes: Math.round(best.minutes),
                    },
                  ],
                }))
              }
            >
              {words}
            </Button>
          ))}
        </div>
      )}
    </Card>
  );
}

interface Outcome {
  outcome: string;
  run?: "as-it-misfires" | "otherwise";
  words: string;
}

/** What a test may show; a swap after which nothing misfires is asked how it was run. */
const outcomes = (test: { test: string; with?: number }, all: string[]): Outcome[] =>
  all.flatMap((outcome): Outcome[] => {
    const words = outcomeWords(test.test, outcome);
    if (test.with === undefined || outcome !== "none") return [{ outcome, words }];
    return [
      { outcome, run: "as-it-misfires", words: `${words}, run the way it misfires` },
      { outcome, run: "otherwise", words: `${words}, but not run so` },
    ];
  });
