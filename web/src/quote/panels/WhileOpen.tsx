import { memo } from "react";
import styled from "styled-components";
import type { Bundle } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { olderFigures } from "../../shared/olderFigures";
import { Button, Heading, KeyHint, Small, Unseen } from "../../shared/parts";
import { BUNDLE_KEYS } from "../useQuoteKeys";
import { openingWords } from "../words";

const Table = styled.table`
  font-size: 14px;
  margin-bottom: 12px;
  th {
    font-weight: 400;
    color: var(--second);
    font-size: 13px;
    text-align: right;
    padding: 2px 5px;
    border-bottom: 1px solid var(--strong);
    white-space: nowrap;
  }
  th:first-child {
    text-align: left;
    padding-left: 0;
  }
  td {
    padding: 2px 5px;
    border-bottom: 1px solid var(--rule);
    text-align: right;
    white-space: nowrap;
  }
  td:first-child {
    text-align: left;
    white-space: normal;
    padding-left: 0;
    line-height: 1.25;
  }
  button {
    min-height: 28px;
    padding: 1px 9px;
  }
  [data-older] & td {
    ${olderFigures}
  }
`;

interface Props {
  bundles: Bundle[];
  stale: boolean;
  onAdd?: (bundle: Bundle) => void;
}

/** What else is nearly free now, against another day; the one decision that is made here. */
export function WhileOpen({ bundles, stale, onAdd }: Props) {
  if (bundles.length === 0) return null;
  return (
    <section>
      <Heading>
        <span>While it's open</span>
        <Small>now, against another day</Small>
      </Heading>
      <Table aria-busy={stale}>
        <thead>
          <tr>
            <th scope="col">Add</th>
            <th scope="col">hours</th>
            <th scope="col">price</th>
            <th scope="col">alone later</th>
            <th scope="col">
              <span aria-hidden="true" />
            </th>
          </tr>
        </thead>
        <Rows bundles={bundles} onAdd={onAdd} />
      </Table>
    </section>
  );
}

const Rows = memo(function Rows({ bundles, onAdd }: Pick<Props, "bundles" | "onAdd">) {
  const { format } = useSession();
  return (
    <tbody>
      {bundles.map((bundle, i) => (
        <tr key={bundle.label}>
          <td>
            {bundle.label} <Small>{openingWords(bundle)}</Small>
          </td>
          <td>+{format.hours(bundle.added_hours)}</td>
          <td>{bundle.added_cents === null ? "—" : format.signed(bundle.added_cents)}</td>
          <td>{bundle.alone_cents === null ? "—" : format.money(bundle.alone_cents)}</td>
          <td>
            {onAdd && (
              <Button onPress={() => onAdd(bundle)}>
                Add <Unseen>{bundle.label}</Unseen>
                <KeyHint>{BUNDLE_KEYS[i]?.toUpperCase()}</KeyHint>
              </Button>
            )}
          </td>
        </tr>
      ))}
    </tbody>
  );
});
