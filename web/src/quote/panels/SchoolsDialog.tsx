import styled from "styled-components";
import type { Content, Resolved } from "../../api/client";
import { Dialog } from "../../shared/Dialog";
import { Choice } from "../../shared/fields/Choice";
import { Small, Strong } from "../../shared/parts";

type School = Resolved["schools"][number];
type Schools = NonNullable<Content["schools"]>;

const Table = styled.table`
  width: 100%;
  font-size: 14px;
  border-collapse: collapse;
  td {
    border-bottom: 1px solid var(--rule);
    padding: 7px 14px 7px 0;
    vertical-align: top;
  }
  td:last-child {
    width: 300px;
    padding-right: 0;
  }
  @media (max-width: 640px) {
    tr,
    td {
      display: block;
      width: auto;
    }
    td:first-child {
      border-bottom: 0;
      padding-bottom: 0;
    }
    td:last-child {
      width: auto;
    }
  }
`;

/** Whose word is in force. */
const FROM: Record<School["from"], string> = {
  shipped: "As shipped",
  shop: "The shop's rule",
  engine: "This engine's profile",
  job: "For this job",
};

interface Props {
  schools: School[];
  given: Schools;
  /** Absent for those who may only look. */
  onSchools?: (schools: Schools) => void;
  onClose: () => void;
}

/** Where good practitioners disagree: what is in force for this job, whose word it is, and another for this job. */
export function SchoolsDialog({ schools, given, onSchools, onClose }: Props) {
  const set = (setting: School["setting"], value: string) => {
    const rest = Object.fromEntries(Object.entries(given).filter(([name]) => name !== setting));
    onSchools?.((value === "" ? rest : { ...rest, [setting]: value }) as Schools);
  };
  return (
    <Dialog title="Schools in force for this job" onClose={onClose} wide>
      <p style={{ marginBottom: 8 }}>
        <Small>
          The shop&apos;s rules stand under House; what is chosen here holds for this quote, and is printed on its card.
        </Small>
      </p>
      <Table>
        <tbody>
          {schools.map((school) => (
            <tr key={school.setting}>
              <td>
                <Strong>{school.question}</Strong>: {school.says}
                <br />
                <Small>
                  {FROM[school.from]}. {school.why}
                </Small>
              </td>
              <td>
                {onSchools && (
                  <Choice
                    label={school.question}
                    bare
                    value={given[school.setting] === undefined ? "" : school.value}
                    options={[
                      { id: "", text: school.from === "job" ? `as the house: ${school.otherwise}` : "as the house" },
                      ...school.choices.map((choice) => ({ id: choice.value, text: choice.says })),
                    ]}
                    onPick={(value) => set(school.setting, value)}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Dialog>
  );
}
