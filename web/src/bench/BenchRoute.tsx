import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { api, type BenchAnswer, type BenchAsked } from "../api/client";
import { turns } from "../bay/words";
import { useSession } from "../session/SessionGate";
import { Choice } from "../shared/fields/Choice";
import { DayBox } from "../shared/fields/DayBox";
import { DistanceBox } from "../shared/fields/DistanceBox";
import { NumberBox } from "../shared/fields/NumberBox";
import { Pick } from "../shared/fields/Pick";
import { Heading, Notice, Small } from "../shared/parts";
import { torque } from "../shared/units";
import { GapSection, gapRequest, NO_GAP } from "./GapSection";
import { Questions } from "./Questions";
import { TurnDrawing } from "./TurnDrawing";

const Screen = styled.main`
  padding: 16px 26px 40px;
  max-width: 1100px;
  h1 {
    font-size: 22px;
    font-weight: 650;
    margin-bottom: 10px;
  }
  .asks {
    display: flex;
    flex-wrap: wrap;
    gap: 14px 18px;
    align-items: flex-end;
  }
  .sections {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(460px, 100%), 1fr));
    gap: 18px 34px;
    margin-top: 20px;
  }
  .sections > section {
    display: grid;
    gap: 12px;
    align-content: start;
    justify-items: start;
  }
  .answer {
    display: flex;
    gap: 22px;
    align-items: center;
    min-height: 130px;
  }
  .figure {
    font-size: 30px;
    font-weight: 700;
    line-height: 1.15;
  }
  @media (max-width: 560px) {
    padding: 12px;
  }
`;

const ADAPTERS = [
  { id: "none", text: "none" },
  { id: "in-line", text: "in line" },
  { id: "right-angle", text: "at a right angle" },
];
const COMPOUND = [
  { id: "profile", text: "as the engine's profile says" },
  { id: "dry", text: "dry" },
  { id: "film", text: "a film of compound" },
];
const USE = [
  { id: "normal", text: "normal" },
  { id: "severe", text: "severe: short trips, towing, dust" },
];

const today = () => new Date().toISOString().slice(0, 10);

/** The bench: a gap, a torque, a turn, an interval, for one plug of one engine. */
export function BenchRoute() {
  const engines = useQuery({ queryKey: ["engines"], queryFn: () => api.engines() });
  const [query, setQuery] = useSearchParams();
  const carId = query.get("car");
  const car = useQuery({ queryKey: ["car", carId], queryFn: () => api.car(carId ?? ""), enabled: carId !== null });
  const [chosen, setCode] = useState<string | null>(null);
  const code = chosen ?? car.data?.vehicle.engine_code ?? null;
  const notes = car.data && code === car.data.vehicle.engine_code ? (car.data.plug_notes ?? {}) : undefined;
  const engine = useQuery({
    queryKey: ["engine", code],
    queryFn: () => api.engine(code ?? ""),
    enabled: code !== null,
  });
  const [target, setTarget] = useState("");
  const plugs = (engine.data?.profile.targets ?? []).filter((one) => one.work === "plug");
  return (
    <Screen>
      <h1>Bench</h1>
      <div className="asks">
        <Pick
          label="Engine"
          value={code}
          onPick={(next) => {
            setCode(next);
            setTarget("");
            if (carId !== null) setQuery({}, { replace: true });
          }}
          items={(engines.data?.engines ?? []).map((one) => ({
            id: one.code,
            text: one.code,
            more: one.name,
            words: `${one.code} ${one.name}`,
          }))}
          none="No such engine here"
          placeholder="code or kind"
        />
        {plugs.length > 0 && (
          <Choice
            label="Plug"
            value={target || (plugs[0]?.id ?? "")}
            onPick={setTarget}
            options={plugs.map((one) => ({ id: one.id, text: one.id.replace("-", " ") }))}
          />
        )}
      </div>
      {notes && car.data && (
        <p style={{ marginTop: 10 }}>
          For {car.data.vehicle.plate}, {car.data.vehicle.description}
          {notes.torque_note && (
            <>
              . Noted on its torque: <strong>{notes.torque_note}</strong>
            </>
          )}
        </p>
      )}
      {engine.data && plugs.length > 0 && !(carId !== null && car.isPending) ? (
        <Sections
          key={`${engine.data.id} ${carId}`}
          own={notes?.gap_mm}
          engine={engine.data.id}
          target={target || (plugs[0]?.id ?? "")}
          wanted={engine.data.profile.plug.gap_mm}
        />
      ) : (
        <p style={{ marginTop: 18 }}>Choose the engine: its plug, its gap and its torque come with it.</p>
      )}
    </Screen>
  );
}

interface SectionsProps {
  engine: string;
  target: string;
  wanted?: { low: number; high: number };
  /** The gap this car was set up for, where it has one of its own. */
  own?: { low: number; high: number };
}

function Sections({ engine, target, wanted, own }: SectionsProps) {
  const [gap, setGap] = useState({ ...NO_GAP, ...own });
  const [compound, setCompound] = useState("profile");
  const [use, setUse] = useState("normal");
  const [wrench, setWrench] = useState<number | null>(null);
  const [length, setLength] = useState<number | null>(null);
  const [adapter, setAdapter] = useState("none");
  const [arm, setArm] = useState<number | null>(null);
  const [seat, setSeat] = useState<"new" | "used">("new");
  const [odometer, setOdometer] = useState<number | null>(null);
  const [changed, setChanged] = useState<number | null>(null);
  const [changedOn, setChangedOn] = useState<string | null>(null);
  const [yearly, setYearly] = useState<number | null>(15_000);
  const isMeasured = adapter !== "in-line" || (length !== null && length > 0 && arm !== null);
  const asked: BenchAsked = {
    engine,
    target,
    torque: {
      ...(wrench ? { wrench_nm: wrench } : {}),
      ...(length ? { wrench_mm: length } : {}),
      ...(arm !== null ? { adapter_mm: arm } : {}),
      ...(adapter === "none" || !isMeasured ? {} : { adapter: adapter as "in-line" | "right-angle" }),
      ...(compound === "profile" ? {} : { compound: compound === "film" }),
    },
    angle: { seat_state: seat },
    ...gapRequest(gap),
    ...(odometer !== null && changed !== null
      ? {
          interval: {
            odometer_km: odometer,
            changed_km: changed,
            today: today(),
            severe: use === "severe",
            ...(changedOn ? { changed_on: changedOn } : {}),
            ...(yearly !== null ? { yearly_km: yearly } : {}),
          },
        }
      : {}),
  };
  const key = useDeferredValue(JSON.stringify(asked));
  const answer = useQuery({
    queryKey: ["bench", key],
    queryFn: () => api.bench(JSON.parse(key) as BenchAsked),
    placeholderData: (before) => before,
    retry: false,
  });
  const said = answer.data;
  return (
    <>
      {answer.error && (
        <Notice role="alert" style={{ marginTop: 14 }}>
          <p>{answer.error.message}</p>
        </Notice>
      )}
      <div className="sections">
        <GapSection asked={gap} onAsked={setGap} said={said?.gap} wanted={wanted} />
        <section aria-label="Torque">
          <Heading>Torque</Heading>
          <div className="asks">
            <NumberBox label="Wrench, full scale N·m" value={wrench} onValue={setWrench} decimals={0} least={0} />
            <NumberBox label="its length, mm" value={length} onValue={setLength} decimals={0} least={0} />
            <Choice label="Adapter" value={adapter} onPick={setAdapter} options={ADAPTERS} />
            {adapter === "in-line" && (
              <NumberBox label="its length, mm" value={arm} onValue={setArm} decimals={0} least={0} />
            )}
            <Choice label="Threads" value={compound} onPick={setCompound} options={COMPOUND} />
          </div>
          {isMeasured ? (
            <TorqueAnswer said={said?.torque} />
          ) : (
            <p style={{ marginTop: 14 }}>An in-line adapter changes the setting: type both lengths.</p>
          )}
        </section>
        <section aria-label="Turn">
          <Heading>Turn, where no wrench fits</Heading>
          <div className="asks">
            <Choice
              label="Seat"
              value={seat}
              onPick={(next) => setSeat(next as "new" | "used")}
              options={[
                { id: "new", text: "new" },
                { id: "used", text: "used before" },
              ]}
            />
          </div>
          <div className="answer">
            {said?.angle?.turns && (
              <>
                <TurnDrawing
                  turns={[said.angle.turns[0] ?? 0, said.angle.turns[1] ?? 0]}
                  label={turns(said.angle.turns)}
                />
                <div>
                  <p className="figure">{turns(said.angle.turns).replace(" after finger-tight", "")}</p>
                  <Small as="p">after finger-tight. Schools go from an eighth to two thirds: gaskets differ.</Small>
                </div>
              </>
            )}
          </div>
          <Questions said={said?.angle} />
        </section>
        <section aria-label="Interval">
          <Heading>Due again</Heading>
          <div className="asks">
            <DistanceBox label="Odometer" km={odometer} onKm={setOdometer} />
            <DistanceBox label="Changed at" km={changed} onKm={setChanged} />
            <DayBox label="on" value={changedOn} onDay={setChangedOn} />
            <DistanceBox label="A year" km={yearly} onKm={setYearly} />
            <Choice label="Use" value={use} onPick={setUse} options={USE} />
          </div>
          <IntervalAnswer said={said?.interval} />
        </section>
      </div>
    </>
  );
}

function TorqueAnswer({ said }: { said: BenchAnswer["torque"] }) {
  const { format } = useSession();
  return (
    <>
      <div className="answer">
        {said?.nm !== undefined && (
          <div>
            <p className="figure">{torque(said.nm, format.figure)}</p>
            {said.setting_nm !== undefined && said.setting_nm !== said.nm && (
              <p>
                set the wrench to <strong>{torque(said.setting_nm, format.figure)}</strong>
              </p>
            )}
            {said.wrench_ok === false && <p>This wrench is not good for it: take one whose scale holds the setting.</p>}
            {said.wrench_ok && <p>This wrench holds it.</p>}
            <Small as="p">Threaded by hand first, all the way down. The maker's figure comes before this one.</Small>
          </div>
        )}
      </div>
      <Questions said={said} />
    </>
  );
}

function IntervalAnswer({ said }: { said: BenchAnswer["interval"] }) {
  const { format } = useSession();
  return (
    <>
      <div className="answer">
        {said && (
          <div>
            <p className="figure">{said.due_km !== undefined && format.distance(said.due_km)}</p>
            {said.due_on && <p>or {format.day(said.due_on)}, whichever comes first</p>}
            {said.overdue_ratio !== undefined && (
              <Small as="p">{format.percent(said.overdue_ratio)} of the interval is run</Small>
            )}
          </div>
        )}
      </div>
      <Questions said={said} />
    </>
  );
}
