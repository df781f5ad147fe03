import { useMutation } from "@tanstack/react-query";
import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import { api, type Content, type QuotePage, type Resolved } from "../../api/client";
import { Small } from "../../shared/parts";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 4px 18px;
  border-bottom: 1px solid var(--rule);
  align-items: center;
  p {
    display: flex;
    gap: 8px;
    align-items: center;
    flex-wrap: wrap;
  }
  button {
    border: 1.2px solid var(--ink);
    background: var(--sheet);
    border-radius: 12px;
    padding: 1px 11px;
    cursor: pointer;
    min-height: 26px;
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--sheet);
  }
`;

interface Props {
  page: QuotePage;
  questions: Resolved["variants"];
  onChange?: (next: (content: Content) => Content) => void;
}

/** Cars differ within one engine code: one question each, asked on the phone, remembered on the car. */
export function Variants({ page, questions, onChange }: Props) {
  const { vehicle } = page;
  const note = useMutation({
    mutationFn: (variants: Record<string, string>) => api.noteHistory(vehicle.id, { variants }),
  });
  if (questions.length === 0) return null;
  const answer = (id: string, option: string) => {
    onChange?.((now) => ({ ...now, variants: { ...now.variants, [id]: option } }));
    const said = Object.fromEntries(
      questions.filter((question) => !question.assumed).map((question) => [question.id, question.answer]),
    );
    note.mutate({ ...vehicle.variants, ...said, [id]: option });
  };
  return (
    <Row data-questions>
      {questions.map((question) => (
        <p key={question.id} role="group" aria-label={question.ask}>
          <span>{question.ask}</span>
          {question.options.map((option) => (
            <ToggleButton
              key={option.id}
              isSelected={question.answer === option.id}
              isDisabled={!onChange}
              onChange={() => answer(question.id, option.id)}
            >
              {option.label}
            </ToggleButton>
          ))}
          {question.assumed && <Small>not asked yet: the usual answer is taken</Small>}
        </p>
      ))}
      {note.error && <Small role="alert">Not noted on the car: {note.error.message}</Small>}
    </Row>
  );
}
