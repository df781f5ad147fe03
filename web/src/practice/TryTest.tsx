import { useState } from "react";
import styled from "styled-components";
import type { PracticeCar } from "../api/client";
import { Choice } from "../shared/fields/Choice";
import { Button } from "../shared/parts";
import { testWords } from "../trace/words";

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 2fr) 84px 84px auto;
  gap: 10px;
  align-items: end;
  margin: 10px 0 12px;
  @media (max-width: 560px) {
    grid-template-columns: 1fr 1fr;
  }
`;

interface Props {
  car: PracticeCar;
  isPending: boolean;
  onTest: (test: { test: string; cylinder: number; with?: number }) => void;
}

/** A test to do: which, where, and for an exchange with which other cylinder. */
export function TryTest({ car, isPending, onTest }: Props) {
  const [test, setTest] = useState<string | null>(null);
  const [cylinder, setCylinder] = useState<string | null>(null);
  const [partner, setPartner] = useState<string | null>(null);
  const swap = car.tests.find((one) => one.test === test)?.swap ?? false;
  const numbers = car.reach.cylinders.map(({ number }) => ({ id: String(number), text: String(number) }));
  const words = (id: string) => testWords({ test: id, cylinder: 0 }).replace(/ (of )?0( with another)?$/, "");
  const ready = test && cylinder && (!swap || partner);
  return (
    <Row role="group" aria-label="A test">
      <Choice
        label="Do"
        value={test}
        options={car.tests.map((one) => ({ id: one.test, text: words(one.test) }))}
        onPick={setTest}
      />
      <Choice label="at" value={cylinder} options={numbers} onPick={setCylinder} />
      <Choice
        label="with"
        value={partner}
        options={numbers.filter(({ id }) => id !== cylinder)}
        onPick={setPartner}
        isDisabled={!swap}
      />
      <Button
        $main
        isDisabled={!ready}
        isPending={isPending}
        onPress={() => {
          if (!test || !cylinder) return;
          onTest({ test, cylinder: Number(cylinder), ...(swap && partner ? { with: Number(partner) } : {}) });
        }}
      >
        Do it
      </Button>
    </Row>
  );
}
