import styled from "styled-components";
import { useSession } from "../session/SessionGate";
import { Button, Small } from "../shared/parts";
import type { Tracing } from "./useTrace";
import { adviceWords, outcomeWords, testWords, whyThis } from "./words";

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
          {(sheet.outcomes[best.test] ?? []).map((outcome) => (
            <Button
              key={outcome}
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
                      minutes: Math.round(best.minutes),
                    },
                  ],
                }))
              }
            >
              {outcomeWords(best.test, outcome)}
            </Button>
          ))}
        </div>
      )}
    </Card>
  );
}
