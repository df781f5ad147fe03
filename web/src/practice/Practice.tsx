import { useMutation } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, type PracticeCar, type PracticeTest } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Chip } from "../shared/Chip";
import { list } from "../shared/format";
import { useKeys } from "../shared/keys";
import { useCylinderKeys } from "../shared/useCylinderKeys";
import { Button, Heading, Notice, Plate, Small, Strong } from "../shared/parts";
import { Columns, Margin, Matter, Spread } from "../shared/Spread";
import { Suspects } from "../trace/Suspects";
import { doneWords } from "../trace/words";
import { HowItWent } from "./HowItWent";
import { TryTest } from "./TryTest";
import { carWords, complaintWords } from "./words";

const Lines = styled.ol`
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
  border-top: 1px solid var(--strong);
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 8px 0;
    border-bottom: 1px solid var(--rule);
  }
`;
const Chips = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 0 14px;
`;
const Words = styled.label`
  display: block;
  textarea {
    display: block;
    width: 100%;
    min-height: 96px;
    margin-top: 4px;
    padding: 8px 10px;
    border: 1.2px solid var(--strong);
    border-radius: 6px;
    background: var(--paper);
    color: var(--ink);
    font: inherit;
  }
`;

/** A car nobody owns: find out, say what to renew and what you would say; then the truth. */
export function Practice({ car }: { car: PracticeCar }) {
  const { format } = useSession();
  const navigate = useNavigate();
  const [tests, setTests] = useState<PracticeTest[]>([]);
  const [targets, setTargets] = useState<string[]>([]);
  const [words, setWords] = useState("");
  const first = [...car.shares].sort((a, b) => b.share - a.share)[0]?.cylinder ?? 1;
  const [shown, setShown] = useState(first);
  const numbers = car.reach.cylinders.map((cylinder) => cylinder.number);
  useKeys(useCylinderKeys(numbers, setShown, (number) => `Parts of cylinder ${number}`));
  const look = useMutation({
    mutationFn: (next: { tests: PracticeTest[]; targets: string[] }) =>
      api.practiceTests(car.seed, next.tests, next.targets),
    onSuccess: (_answer, next) => {
      setTests(next.tests);
      setTargets(next.targets);
    },
  });
  const end = useMutation({ mutationFn: () => api.practiceEnd(car.seed, { tests, targets, words }) });
  const { evidence, shares, moved, quote } = look.data ?? car;
  const over = car.layers.filter((layer) => layer.over.includes(shown) && layer.cylinder === null);
  const here = car.targets.filter((target) => target.cylinders.includes(shown));
  const minutes = evidence.reduce((sum, one) => sum + one.minutes, 0);
  const problem = look.error ?? end.error;
  const isOver = end.data !== undefined;

  return (
    <Spread>
      <Matter>
        <header style={{ alignItems: "center" }}>
          <Plate>practice</Plate>
          <div>
            <h1 style={{ fontSize: 19 }}>“{complaintWords(car)}”</h1>
            <Small>
              A made-up car, number {car.seed} · {car.engine.name} · {carWords(car, format)}
            </Small>
          </div>
        </header>
        {car.lamp === "blinking" && (
          <p style={{ color: "var(--mark)", fontSize: 18, fontWeight: 650, marginBottom: 8 }} role="alert">
            The lamp blinks: do not drive it. Unburned fuel overheats the catalyst.
          </p>
        )}
        {problem && (
          <Notice role="alert" style={{ marginBottom: 10 }}>
            <p>{problem.message}</p>
          </Notice>
        )}
        {isOver ? (
          <HowItWent end={end.data} />
        ) : (
          <Columns style={{ "--left": "44fr", "--right": "46fr" } as CSSProperties}>
            <div>
              <Heading>
                <span>Where it may be</span>
                <Small>darker: more likely</Small>
              </Heading>
              <Suspects reach={car.reach} shares={shares} chosen={shown} isStale={look.isPending} onChoose={setShown} />
              <Small as="p">
                Over {shown}: {list(over.map((layer) => layer.label.toLowerCase())) || "nothing but its coil"}.
              </Small>
              {moved.map((part) => (
                <p key={`${part.kind}-${part.from.join()}`}>
                  The {part.kind} of {list(part.from)} sits at {list(part.now)} now.
                </p>
              ))}
            </div>
            <section aria-label="What we know">
              <Heading>
                <span>What we know</span>
                <Small>{format.minutes(minutes)} min of tests</Small>
              </Heading>
              <Lines>
                <li>
                  <span>
                    {car.codes.length > 0 ? `Codes: ${car.codes.map((one) => one.code).join(", ")}` : "No code at all"}
                  </span>
                </li>
                {evidence.map((one, i) => (
                  <li key={i}>
                    <span>{doneWords(one)}</span>
                    <Small>{format.minutes(one.minutes)} min</Small>
                  </li>
                ))}
              </Lines>
              <TryTest
                car={car}
                isPending={look.isPending}
                onTest={(test) => look.mutate({ tests: [...tests, test], targets })}
              />
            </section>
          </Columns>
        )}
      </Matter>
      <Margin>
        <Heading>Renew</Heading>
        {!isOver && (
          <>
            <Small as="p">of number {shown}; press another, or its digit, for its parts</Small>
            <Chips role="group" aria-label="Renew">
              {here.map((target) => (
                <Chip
                  key={target.id}
                  isSelected={targets.includes(target.id)}
                  onChange={(on) =>
                    look.mutate({
                      tests,
                      targets: on ? [...targets, target.id] : targets.filter((one) => one !== target.id),
                    })
                  }
                >
                  {target.label}
                </Chip>
              ))}
            </Chips>
          </>
        )}
        {(targets.length > 0 || isOver) && (
          <p style={{ marginBottom: 12 }}>
            <Strong>
              {list(car.targets.filter((target) => targets.includes(target.id)).map((target) => target.label)) ||
                "Nothing"}
            </Strong>
          </p>
        )}
        {quote && (
          <p style={{ display: "flex", justifyContent: "space-between", alignItems: "baseline", marginBottom: 12 }}>
            <span>{format.hours(quote.hours)} h, quoted</span>
            <span style={{ fontSize: 24, fontWeight: 650 }}>
              {quote.cents === null ? "no price" : format.moneyWithSign(quote.cents)}
            </span>
          </p>
        )}
        <Words>
          What would you say to the customer?
          <textarea
            value={words}
            maxLength={2000}
            readOnly={isOver}
            onChange={(event) => setWords(event.target.value)}
          />
        </Words>
        <div className="end">
          {isOver ? (
            <Button $main onPress={() => void navigate("/practice")}>
              Another car
            </Button>
          ) : (
            <Button $main isPending={end.isPending} onPress={() => end.mutate()}>
              Show the truth
            </Button>
          )}
        </div>
      </Margin>
    </Spread>
  );
}
