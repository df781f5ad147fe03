import { useState } from "react";
import styled from "styled-components";
import type { CardPiece, CardSheet, CardStanding, CardState, Mark } from "../api/client";
import type { Formatter } from "../shared/format";
import { Small } from "../shared/parts";
import { torque } from "../shared/units";
import { ending } from "./acts";
import type { InHand, PlugInHand } from "./inHand";
import { mark } from "./offlineQueue";
import { nextOpening } from "./opening";
import { actsOf } from "./pieces";
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
  const withEnding = (...marks: Mark[]) => press(...marks, ...ending(hand, state));
  const which = plug && { plug: plug.target, nth: plug.nth };
  const asked = which && { piece, about: which, believed: sheet.gap_believed_mm, format, press: withEnding };
  const isBroken = plug ? state.plugs[plug.key]?.out?.outcome === "broken" : false;
  return (
    <Panel aria-label="In hand">
      <Small as="p">
        in hand, {hand.number} of {sheet.pieces.length}
        {piece.people > 1 && ` · ${piece.people} people`}
        {piece.minutes > 0 && ` · ${format.minutes(piece.minutes)} min reckoned`}
      </Small>
      <h2>{plug ? plugTitle(piece, plug, sheet) : title(piece)}</h2>
      <Facts>
        {facts(hand, sheet, format).map(([name, words], i, all) => (
          <Fact key={`${name} ${words}`} name={all[i - 1]?.[0] === name ? "" : name} words={words} />
        ))}
      </Facts>
      {piece.waiting && <Wait piece={piece} since={state.waiting[piece.id]} sheet={sheet} format={format} />}
      {!plug && (piece.ticks ?? []).length > 0 && <Ticks piece={piece} state={state} press={press} />}
      {which && plug.step === "out" && <CameOut piece={piece} about={which} press={withEnding} />}
      {asked && plug.step === "read" && <Reading key={plug.key} {...asked} isBroken={isBroken} />}
      {asked && plug.step === "new" && <NewPlug key={plug.key} {...asked} />}
      {plug?.step === "out" && <Odds target={plug.target} standing={standing} />}
    </Panel>
  );
}

const Fact = ({ name, words }: { name: string; words: string }) => (
  <>
    <dt>{name}</dt>
    <dd>{words}</dd>
  </>
);

const SAYS: Record<PlugInHand["step"], string> = {
  well: "clean its well",
  out: "out",
  read: "read the old one",
  dry: "its well dry again",
  new: "the new one",
  in: "in",
};

function plugTitle(piece: CardPiece, plug: PlugInHand, sheet: CardSheet): string {
  const known = sheet.plugs.find((one) => one.key === plug.key);
  const label = known?.label ?? (piece.title ?? piece.label).replace(/, (out|in|off|on)$/, "");
  return `${nthPlug(label, plug.nth, plug.count)}, ${SAYS[plug.step]}`;
}

/** What to know of it now: only what this step needs. */
function facts({ piece, plug }: InHand, sheet: CardSheet, format: Formatter): [string, string][] {
  const rows: [string, string][] = [];
  const tools = (piece.with ?? []).map((tool) => tool.replaceAll("-", " ")).join(", ");
  if (tools && (!plug || ["out", "in"].includes(plug.step))) rows.push(["with", tools]);
  (piece.does ?? []).forEach((text) => {
    if (!plug) rows.push(["do", text]);
  });
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

/** The acts of the card each step of a plug says the words of: by hand, then torqued, is one press. */
const ACTS_OF: Record<PlugInHand["step"], string[]> = {
  well: ["clean"],
  out: ["out"],
  read: ["read"],
  dry: ["dry"],
  new: [],
  in: ["in", "tighten"],
};

function plugFacts(
  piece: CardPiece,
  step: PlugInHand["step"],
  sheet: CardSheet,
  format: Formatter,
): [string, string][] {
  const about = piece.plug;
  if (!about) return [];
  const says = actsOf(piece)
    .filter(({ act }) => ACTS_OF[step].includes(act))
    .flatMap(({ does }) => does.map((text): [string, string] => ["do", text]));
  if (step === "new" && sheet.schools.gap === "trust")
    return [...says, ["house", "pre-set gaps are trusted: look at the strap, measure one that fell"]];
  if (step !== "in") return says;
  const tight =
    about.by === "angle" || about.torque_nm === undefined
      ? about.turns
        ? turns(about.turns)
        : "by the maker's figure"
      : torque(about.torque_nm, format.figure);
  return [
    ...says,
    ["then", tight],
    ...(about.torque_note ? [["this car", about.torque_note] as [string, string]] : []),
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
/** Bolts, clips, hoses and connectors are counted; what is looked at is said. */
const tickWords = ({ item, label, count }: NonNullable<CardPiece["ticks"]>[number]) =>
  TICKS[item] ?? (item.includes(":") ? `${count} × ${label}` : label);

interface CameOutProps {
  piece: CardPiece;
  about: { plug: string; nth: number };
  press: Props["press"];
}

function CameOut({ piece, about, press }: CameOutProps) {
  const [sign, setSign] = useState<Mark["sign"]>();
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

interface WaitProps {
  piece: CardPiece;
  since?: string;
  sheet: CardSheet;
  format: Formatter;
}

function Wait({ piece, since, sheet, format }: WaitProps) {
  const now = useNow();
  if (piece.overnight) {
    const opens = nextOpening(sheet.opening_hours ?? {}, new Date(since ?? now));
    return (
      <p style={{ marginTop: 12, fontSize: 17 }} role="status">
        {opens && <strong>Until {format.wall(opens)}, when the shop opens.</strong>}
      </p>
    );
  }
  if (!since) return <p style={{ marginTop: 12, fontSize: 17 }}>{Math.round(piece.minutes)} min once it begins.</p>;
  const left = minutesLeft(piece.minutes, since, now);
  return (
    <p style={{ marginTop: 12, fontSize: 17 }} role="status">
      <strong>{left > 0 ? `${left} min to go.` : "The time is up."}</strong>
      {!piece.does && " Meanwhile: lay out the new parts, check the gaps, cover what is open."}
    </p>
  );
}

function Odds({ target, standing }: { target: string; standing: CardStanding }) {
  const odds = standing.odds.find((row) => row.target === target);
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
