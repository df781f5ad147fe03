import { type ReactNode, useState } from "react";
import styled from "styled-components";
import type { CardPiece, CardSheet, Mark } from "../api/client";
import { NumberBox } from "../shared/fields/NumberBox";
import type { Formatter } from "../shared/format";
import { doubt, type Gap, isOff } from "./gap";
import { GapDrawing } from "./GapDrawing";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { CONDITIONS } from "./words";

const Measured = styled.div`
  display: flex;
  gap: 10px 22px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 10px;
`;

interface GapProps {
  label: string;
  gap: number | null;
  onGap: (gap: number | null) => void;
  wanted?: Gap;
  believed: Gap;
  format: Formatter;
  children: ReactNode;
}

/** A gap as it was measured, drawn beside what it should be; questioned where no plug has such a gap. */
function Measure({ label, gap, onGap, wanted, believed, format, children }: GapProps) {
  const problem = doubt(gap, believed);
  return (
    <Measured>
      <NumberBox label={label} value={gap} onValue={onGap} decimals={3} least={0} problem={problem} />
      <GapDrawing gap={problem ? null : gap} wanted={wanted} format={format} />
      {children}
    </Measured>
  );
}

interface Props {
  piece: CardPiece;
  /** Which plug: the target and which of its plugs. */
  about: { plug: string; nth: number };
  believed: CardSheet["gap_believed_mm"];
  format: Formatter;
  press: (...marks: Mark[]) => void;
}

type Condition = keyof typeof CONDITIONS;

/** The old plug: how it looks, what that says, its gap now. */
export function Reading({ piece, about, isBroken, believed, format, press }: Props & { isBroken: boolean }) {
  const [chosen, setChosen] = useState<Condition[]>([]);
  const [gap, setGap] = useState<number | null>(null);
  const toggle = (code: Condition) =>
    setChosen((now) => (now.includes(code) ? now.filter((one) => one !== code) : [...now, code]));
  const seen = { ...about, conditions: chosen, ...(gap === null ? {} : { gap_mm: gap }) };
  return (
    <>
      <Choices role="group" aria-label="How does it look?">
        {(Object.keys(CONDITIONS) as Condition[]).map((code) => (
          <Press
            key={code}
            aria-pressed={chosen.includes(code)}
            data-chosen={chosen.includes(code) || undefined}
            onPress={() => toggle(code)}
            style={{ minHeight: 46, fontSize: 15 }}
          >
            {CONDITIONS[code][0]}
          </Press>
        ))}
      </Choices>
      {chosen.length > 0 && (
        <p>
          <strong>{chosen.map((code) => CONDITIONS[code][1]).join("; ")}</strong>
        </p>
      )}
      <Measure
        label="Gap now, mm"
        gap={gap}
        onGap={setGap}
        wanted={piece.plug?.gap_mm}
        believed={believed}
        format={format}
      >
        <Press
          onPress={() => press(mark("read", seen))}
          isDisabled={chosen.length === 0 || Boolean(doubt(gap, believed))}
        >
          It is read
        </Press>
        {isBroken && (
          <Press onPress={() => press(mark("read", { ...about, conditions: [] }))}>Nothing left to read</Press>
        )}
      </Measure>
    </>
  );
}

/** The new plug before it goes in: its gap checked, set where the wire allows it. */
export function NewPlug({ piece, about, believed, format, press }: Props) {
  const [gap, setGap] = useState<number | null>(null);
  const wanted = piece.plug?.gap_mm;
  const problem = doubt(gap, believed);
  const checked = { ...about, ...(gap === null ? {} : { gap_mm: gap }) };
  return (
    <Measure
      label="Gap of the new one, mm"
      gap={gap}
      onGap={setGap}
      wanted={wanted}
      believed={believed}
      format={format}
    >
      <span style={{ maxWidth: 260 }}>
        {!problem && isOff(gap, wanted) && (
          <strong>
            {piece.plug?.fine_wire ? "Fine wire is never pried: another plug." : "Set it at the side wire."}{" "}
          </strong>
        )}
        <Press onPress={() => press(mark("new", checked))} isDisabled={Boolean(problem)}>
          {gap === null ? "Checked, in range" : "Checked"}
        </Press>
      </span>
    </Measure>
  );
}
