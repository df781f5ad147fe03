import { memo } from "react";
import styled from "styled-components";
import type { EngineProfile } from "../api/client";
import { Button } from "../shared/parts";

const Banks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  min-height: 36px;
  margin: 4px 0 6px;
`;

interface Props {
  /** The cylinders, which are the same while figures are typed. */
  cylinders: EngineProfile["cylinders"];
  hasLayer: boolean;
  onLay: (cylinders: number[]) => void;
}

/** Lays the layer in hand over all cylinders, or over one bank. */
export const LiesOver = memo(function LiesOver({ cylinders, hasLayer, onLay }: Props) {
  const banks = [...new Set(cylinders.map((cylinder) => cylinder.bank).filter((bank) => typeof bank === "string"))];
  const numbers = (bank?: string) =>
    cylinders.filter((cylinder) => bank === undefined || cylinder.bank === bank).map((cylinder) => cylinder.number);
  return (
    <Banks role="group" aria-label="Lies over">
      {hasLayer && (
        <>
          <Button onPress={() => onLay(numbers())}>All</Button>
          {banks.map((bank) => (
            <Button key={bank} onPress={() => onLay(numbers(bank))}>
              {bank} bank
            </Button>
          ))}
        </>
      )}
    </Banks>
  );
});
