import { useState } from "react";
import styled from "styled-components";
import type { CardPiece, CardSheet, CardStanding, CardState, Mark } from "../api/client";
import type { Formatter } from "../shared/format";
import { Small } from "../shared/parts";
import { torque } from "../shared/units";
import type { InHand } from "./inHand";
import { mark } from "./kept";
import { Choices, Facts, Press } from "./parts";
import { NewPlug, Reading } from "./Reading";
import { minutesLeft, useNow } from "./useNow";
import { nthPlug, OUTCOMES, SCHOOLS, SIGNS, title, turns } from "./words";

const Panel = styled.section`
  border: 1.4px solid var(--ink);
  border-radius: 14px;
  background: var(--sheet);
  padding: 16px 20px 18px;
  h2 {
    font-size: 28px;
    font-weight: 650;
    line-height: 1.15;
  }
  .odds {
    border-top: 1px solid var(--rule);
    margin-top: 14px;
    padding-top: 12px;
    font-size: 15px;
  }
`;

interface Props {
  hand: InHand;
  sheet: CardSheet;
  state: CardState;
  standing: CardStanding;
  format: Formatter;
  press: (...marks: Mark[]) => void;
}

/** The piece in hand, large: with what, how many, how tight, what to mind; and the choices it asks for. */
export function InHandPanel({ hand, sheet, state, standing, format, press }: Props) {
  const { piece, plug } = hand;
  const about = { piece, believed: sheet.gap_believed_mm, format, press };
  return (
    <Panel aria-label="In hand">
      <Small as="p">
        in hand, {hand.number} of {sheet.pieces.length}
        {piece.people > 1 && ` · ${piece.people} people`} · {format.minutes(piece.minutes)} min reckoned
      </Small>
      <h2>{plug ? plugTitle(piece, plug.step, plug.nth) : title(piece)}</h2>
      <Facts>
        {facts(hand, sheet, format).map(([name, words], i, all) => (
          <Fact key={`${name} ${words}`} name={all[i - 1]?.[0] === name ? "" : name} words={words} />
        ))}
      </Facts>
      {piece.waiting && <Wait piece={piece} since={state.waiting[piece.id]} />}
      {piece.kind === "refit" && <Ticks piece={piece} state={state} press={press} />}
      {plug?.step === "out" && <CameOut piece={piece} nth={plug.nth} press={press} />}
      {plug?.step === "read" && <Reading key={plug.key} {...about} nth={plug.nth} />}
      {plug?.step === "new" && <NewPlug key={plug.key} {...about} nth={plug.nth} />}
      {plug?.step === "out" && <Odds piece={piece} standing={standing} />}
    </Panel>
  );
}

const Fact = ({ name, words }: { name: string; words: string }) => (
  <>
    <dt>{name}</dt>
    <dd>{words}</dd>
  </>
);

function plugTitle(piece: CardPiece, step: NonNullable<InHand["plug"]>["step"], nth: number): string {
  const name = nthPlug(piece.label, nth, piece.plug?.count ?? 1);
  const says = { well: "clean its well", out: "out", read: "read the old one", new: "the new one", in: "in" };
  return `${name}, ${says[step]}`;
}

/** What to know of it now: only what this step needs. */
function facts({ piece, plug }: InHand, sheet: CardSheet, format: Formatter): [string, string][] {
  const rows: [string, string][] = [];
  const tools = (piece.with ?? []).map((tool) => tool.replaceAll("-", " ")).join(", ");
  if (tools && plug?.step !== "well" && plug?.step !== "read") rows.push(["with", tools]);
  (piece.fasteners ?? []).forEach((one) => {
    const tight = piece.kind === "refit" && one.torque_nm ? `, ${torque(one.torque_nm, format.figure)}` : "";
    const size = one.size ? `, ${one.size}` : "";
    const order = piece.kind === "refit" && one.pattern ? `, ${one.pattern}` : "";
    const fresh = piece.kind === "refit" && one.new ? ", new ones" : "";
    rows.push(["bolts", `${one.count} × ${one.what}${size}${tight}${order}${fresh}`]);
  });
  (piece.parts ?? []).forEach((part) => {
    if (!plug || plug.step === "new")
      rows.push(["part", `${part.quantity} × ${part.label || part.part} (${part.part})`]);
  });
  if (plug) rows.push(...plugFacts(piece, plug.step, sheet, format));
  (piece.cautions ?? []).forEach((text) => {
    if (!plug || plug.step === "well" || plug.step === "out") rows.push(["mind", text]);
  });
  return rows;
}

function plugFacts(piece: CardPiece, step: string, sheet: CardSheet, format: Formatter): [string, string][] {
  const about = piece.plug;
  if (!about) return [];
  if (step === "well") return [["first", "blown and vacuumed before it turns"]];
  if (step === "out") return [["then", "a quarter turn out; it squeaks: back in, out again"]];
  if (step !== "in") return [];
  const tight =
    about.by === "angle" || about.torque_nm === undefined
      ? about.turns
        ? turns(about.turns)
        : "by the maker's figure"
      : torque(about.torque_nm, format.figure);
  return [
    ["first", "threaded by hand, all the way down"],
    ["then", tight],
    ...(about.wrench_nm && about.by === "torque" ? [wrench(about.wrench_nm, format)] : []),
    [
      "house",
      [SCHOOLS.compound?.[sheet.schools.compound ?? ""], SCHOOLS.grease?.[sheet.schools.grease ?? ""]].join("; "),
    ],
  ];
}

/** Which wrenches are good for it: its setting lies in the part of the scale they are true in. */
const wrench = ([from = 0, to = 0]: number[], format: Formatter): [string, string] => [
  "wrench",
  `one of ${format.figure(Math.ceil(from), 0)} to ${format.figure(Math.floor(to), 0)} N·m full scale`,
];

function Ticks({ piece, state, press }: { piece: CardPiece; state: CardState; press: Props["press"] }) {
  const made = state.ticks[piece.id] ?? [];
  return (
    <Choices role="group" aria-label="Ticked off">
      {(piece.ticks ?? []).map((tick) => {
        const done = made.includes(tick.item);
        return (
          <Press
            key={tick.item}
            aria-pressed={done}
            data-chosen={done || undefined}
            onPress={() => !done && press(mark("tick", { piece: piece.id, item: tick.item }))}
          >
            {done ? "✓ " : ""}
            {tickWords(tick)}
          </Press>
        );
      })}
    </Choices>
  );
}

const TICKS: Record<string, string> = {
  seated: "pressed home",
  connector: "connector clicked",
  hose: "hose and clamp",
};
const tickWords = ({ item, label, count }: NonNullable<CardPiece["ticks"]>[number]) =>
  TICKS[item] ?? `${count} × ${label}`;

function CameOut({ piece, nth, press }: { piece: CardPiece; nth: number; press: Props["press"] }) {
  const [sign, setSign] = useState<Mark["sign"]>();
  const about = { plug: piece.ref ?? "", nth };
  const out = (outcome: NonNullable<Mark["outcome"]>) => {
    const came = mark("out", { ...about, outcome, ...(sign ? { sign } : {}) });
    const fights = outcome === "broken" || outcome === "thread";
    press(came, ...(fights ? [mark("fight", { what: outcome, ...about, piece: piece.id })] : []));
  };
  return (
    <>
      <Choices role="group" aria-label="Sign while it moved">
        {SIGNS.map(([code, words]) => (
          <Press
            key={code}
            aria-pressed={sign === code}
            data-chosen={sign === code || undefined}
            onPress={() => setSign(sign === code ? undefined : code)}
          >
            {words}
          </Press>
        ))}
      </Choices>
      <p>
        <strong>How did it come out?</strong>
      </p>
      <Choices role="group" aria-label="How did it come out?">
        {OUTCOMES.map(([code, words]) => (
          <Press key={code} onPress={() => out(code)} style={{ minWidth: 120 }}>
            {words}
          </Press>
        ))}
      </Choices>
    </>
  );
}

function Wait({ piece, since }: { piece: CardPiece; since?: string }) {
  const now = useNow();
  if (!since) return <p style={{ marginTop: 12, fontSize: 17 }}>{Math.round(piece.minutes)} min once it begins.</p>;
  const left = minutesLeft(piece.minutes, since, now);
  return (
    <p style={{ marginTop: 12, fontSize: 17 }} role="status">
      <strong>{left > 0 ? `${left} min to go.` : "The time is up."}</strong> Meanwhile: lay out the new parts, check the
      gaps, cover what is open.
    </p>
  );
}

function Odds({ piece, standing }: { piece: CardPiece; standing: CardStanding }) {
  const odds = standing.odds.find((row) => row.target === piece.ref);
  if (!odds) return null;
  const now = Math.round(odds.fights * 100);
  const before = Math.round(odds.fights_before * 100);
  return (
    <p className="odds" role="status">
      {odds.moved ? (
        <>
          What came out so far {now > before ? "raises" : "lowers"} the chance that <strong>this one fights</strong>:
          from {before} to <strong>{now} in 100</strong>.
          {now > before && " Soaking it now costs minutes and spares a break."}
        </>
      ) : (
        <>
          {now} in 100 such plugs fight; {Math.max(1, Math.round(odds.breaks * 1000))} in 1,000 break.
        </>
      )}
    </p>
  );
}
