import type { BenchAnswer, BenchAsked } from "../api/client";
import { GapDrawing } from "../bay/GapDrawing";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { NumberBox } from "../shared/fields/NumberBox";
import { Button, Heading, Small } from "../shared/parts";
import { MM_PER_INCH } from "../shared/units";
import { type Leaf, placeOf, readings, type Unit } from "./leaves";
import { Questions } from "./Questions";

export interface GapAsked {
  plug: "new" | "worn";
  leaves: Leaf[];
  noGo: Leaf;
  /** This car's own target, mm; empty: the profile's. */
  low: number | null;
  high: number | null;
}

export const NO_GAP: GapAsked = {
  plug: "worn",
  leaves: [{ value: null, unit: "mm" }],
  noGo: { value: null, unit: "mm" },
  low: null,
  high: null,
};

/** What the server is asked of it; nothing before a leaf is typed. */
export function gapRequest({ plug, leaves, noGo, low, high }: GapAsked): Pick<BenchAsked, "gap"> {
  const passes = readings(leaves);
  if (passes.length === 0) return {};
  const stops = readings([noGo])[0];
  const own = low !== null && high !== null ? { target_mm: { low, high } } : {};
  return { gap: { plug, leaves: passes, ...(stops ? { no_go: stops } : {}), ...own } };
}

const UNITS = [
  { id: "mm", text: "mm" },
  { id: "in", text: "in" },
];
const PLUGS = [
  { id: "worn", text: "worn, just out" },
  { id: "new", text: "new" },
];

interface Props {
  asked: GapAsked;
  onAsked: (asked: GapAsked) => void;
  said: BenchAnswer["gap"];
  wanted?: { low: number; high: number };
}

/** A gap by as many leaves as it takes, each in its own unit; what it is, and what is done about it. */
export function GapSection({ asked, onAsked, said, wanted }: Props) {
  const { leaves } = asked;
  const set = (change: Partial<GapAsked>) => onAsked({ ...asked, ...change });
  const setLeaf = (at: number, leaf: Partial<Leaf>) =>
    set({ leaves: leaves.map((one, i) => (i === at ? { ...one, ...leaf } : one)) });
  const own = asked.low !== null && asked.high !== null ? { low: asked.low, high: asked.high } : null;
  return (
    <section aria-label="Gap">
      <Heading>Gap</Heading>
      <div className="asks">
        <Choice
          label="The plug is"
          value={asked.plug}
          onPick={(next) => set({ plug: next as "new" | "worn" })}
          options={PLUGS}
        />
      </div>
      {leaves.map((leaf, i) => (
        <LeafBox
          key={i}
          label={i === 0 ? "Leaf that passes" : "and with it"}
          leaf={leaf}
          onLeaf={(change) => setLeaf(i, change)}
        />
      ))}
      {leaves.length < 12 && (
        <Button onPress={() => set({ leaves: [...leaves, { value: null, unit: leaves.at(-1)?.unit ?? "mm" }] })}>
          One more leaf
        </Button>
      )}
      <LeafBox
        label="Leaf that does not pass"
        leaf={asked.noGo}
        onLeaf={(change) => set({ noGo: { ...asked.noGo, ...change } })}
      />
      <div className="asks">
        <NumberBox
          label="This car's own target, from, mm"
          value={asked.low}
          onValue={(low) => set({ low })}
          decimals={2}
          least={0}
        />
        <NumberBox label="to, mm" value={asked.high} onValue={(high) => set({ high })} decimals={2} least={0} />
      </div>
      <GapAnswer said={said} wanted={own ?? wanted} />
      {(said?.questions ?? []).map((question) =>
        (question.slips ?? []).map((slip) => (
          <Button
            key={`${question.path} ${slip.value} ${slip.unit}`}
            onPress={() => {
              if (question.path.endsWith("/no_go")) return set({ noGo: slip });
              const reading = Number(/leaves\/(\d+)/.exec(question.path)?.[1] ?? 0);
              setLeaf(placeOf(leaves, reading), slip);
            }}
          >
            It is {slip.value} {slip.unit}
          </Button>
        )),
      )}
      <Questions said={said} />
    </section>
  );
}

function LeafBox({ label, leaf, onLeaf }: { label: string; leaf: Leaf; onLeaf: (leaf: Partial<Leaf>) => void }) {
  return (
    <div className="asks">
      <NumberBox label={label} value={leaf.value} onValue={(value) => onLeaf({ value })} decimals={4} least={0} />
      <Choice label="in" value={leaf.unit} onPick={(unit) => onLeaf({ unit: unit as Unit })} options={UNITS} />
    </div>
  );
}

const STATES = { "worn-wide": "too wide", closed: "closed", "in-range": "in range" };
const ADVICE = {
  close: "close it at the side wire",
  open: "open it at the side wire",
  leave: "leave it as it is",
  renew: "renew it; a worn plug is not gapped",
  exchange: "exchange it; fine wire is never bent",
};

function GapAnswer({ said, wanted }: { said: BenchAnswer["gap"]; wanted?: { low: number; high: number } }) {
  const { format } = useSession();
  return (
    <div className="answer">
      <GapDrawing gap={said?.state ? said.mm : null} wanted={wanted} format={format} />
      {said && (
        <div>
          <p className="figure">
            {said.range_mm
              ? `${said.range_mm.map((mm) => format.figure(mm, 2)).join(" to ")} mm`
              : `${format.figure(said.mm, 2)} mm`}
          </p>
          {said.state && (
            <p>
              {STATES[said.state]}: {said.advice && ADVICE[said.advice]}
            </p>
          )}
          <Small as="p">
            {format.figure(said.mm / MM_PER_INCH)} in. Never copied from a worn plug; a dropped one is measured again.
          </Small>
        </div>
      )}
    </div>
  );
}
