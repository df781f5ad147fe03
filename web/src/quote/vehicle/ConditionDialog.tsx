import styled from "styled-components";
import { type Content, type QuotePage, type Resolved } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { Choice, type Option } from "../../shared/fields/Choice";
import { DistanceBox } from "../../shared/fields/DistanceBox";
import { Field } from "../../shared/fields/Field";
import { NumberBox } from "../../shared/fields/NumberBox";
import { Small } from "../../shared/parts";
import { NoteOnVehicle } from "./NoteOnVehicle";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 14px 20px;
  margin-bottom: 16px;
  align-items: start;
  .whole {
    grid-column: 1 / -1;
  }
  .wells {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(100px, 1fr));
    gap: 8px 16px;
    border: 0;
    margin: 0;
    padding: 0;
  }
  .wells legend {
    padding: 0 0 3px;
    font-size: 13px;
    color: var(--second);
  }
`;

interface Props {
  page: QuotePage;
  content: Content;
  resolved: Resolved;
  problem: string;
  onChange?: (next: (content: Content) => Content) => void;
  onClose: () => void;
}

type History = NonNullable<Content["history"]>;
type Condition = NonNullable<Content["condition"]>;
type Well = NonNullable<Condition["wells"]>[string];

const WELLS: Record<Well, string> = {
  dry: "dry",
  wet: "wet",
  rusted: "rusted",
  oil: "oil in it",
  seized: "plug seized, known",
};

const optionsOf = (words: Record<string, string>): Option[] =>
  Object.entries(words).map(([id, text]) => ({ id, text }));

/** What is known of the car. "Unknown" is an answer; what is assumed instead is said. */
export function ConditionDialog({ page, content, resolved, problem, onChange, onClose }: Props) {
  const { format } = useSession();
  const history: History = content.history ?? {};
  const condition: Condition = content.condition ?? {};
  const { assumed } = resolved;
  const setHistory = (change: History) => onChange?.((now) => ({ ...now, history: { ...now.history, ...change } }));
  const setCondition = (change: Condition) =>
    onChange?.((now) => ({ ...now, condition: { ...now.condition, ...change } }));
  const lives = condition.lives ?? page.vehicle.lives ?? "";
  const fitted = history.plug_fitted ?? page.vehicle.plug_fitted ?? "";
  const known = <T,>(key: string, value: T) => (assumed.includes(key) ? null : value);
  const past = () => ({
    odometer_km: known("odometer_km", Math.round(resolved.history.odometer_km)),
    plugs_changed_km: known("plugs_changed_km", Math.round(resolved.history.plugs_changed_km)),
    plugs_changed_years: known("plugs_changed_years", resolved.history.plugs_changed_years),
    compound_used: known("compound_used", resolved.history.compound_used),
    corrosion: resolved.condition.corrosion as "none" | "light" | "heavy",
    lives: lives || null,
    plug_fitted: fitted || null,
  });
  const knownOr = (key: string, value: number | null | undefined, taken: number) =>
    value === undefined ? known(key, taken) : value;
  const choice = (label: string, value: string, options: Record<string, string>, pick: (value: string) => void) => (
    <Choice label={label} value={value} options={optionsOf(options)} isDisabled={!onChange} onPick={pick} />
  );
  const truth = (value: boolean | null | undefined) =>
    value === undefined || value === null ? "unknown" : value ? "yes" : "no";
  const answer = (value: string) => (value === "unknown" ? null : value === "yes");

  return (
    <Dialog title={`Condition and history, ${page.vehicle.plate}`} onClose={onClose} wide>
      <Grid>
        <DistanceBox
          label="Odometer"
          km={knownOr("odometer_km", history.odometer_km, resolved.history.odometer_km)}
          placeholder="unknown"
          isDisabled={!onChange}
          onKm={(km) => setHistory({ odometer_km: km })}
        />
        <DistanceBox
          label="Plugs last changed at"
          km={knownOr("plugs_changed_km", history.plugs_changed_km, resolved.history.plugs_changed_km)}
          placeholder="unknown"
          isDisabled={!onChange}
          problem={
            resolved.history.plugs_changed_km > resolved.history.odometer_km ? "is above the odometer" : undefined
          }
          onKm={(km) => setHistory({ plugs_changed_km: km })}
        />
        <NumberBox
          label="Years since"
          value={knownOr("plugs_changed_years", history.plugs_changed_years, resolved.history.plugs_changed_years)}
          least={0}
          placeholder="unknown"
          isDisabled={!onChange}
          onValue={(years) => setHistory({ plugs_changed_years: years })}
        />
        {choice(
          "Compound used last time",
          truth(history.compound_used ?? (assumed.includes("compound_used") ? null : resolved.history.compound_used)),
          { unknown: "Unknown: taken as no", yes: "Yes", no: "No" },
          (value) => setHistory({ compound_used: answer(value) }),
        )}
        {choice("Rust", resolved.condition.corrosion, { none: "None", light: "Light", heavy: "Heavy" }, (value) =>
          setCondition({ corrosion: value as "none" | "light" | "heavy" }),
        )}
        {choice(
          "Connectors",
          truth(condition.brittle),
          {
            unknown: `By age and engine: ${resolved.condition.brittle ? "brittle" : "sound"}`,
            yes: "Brittle",
            no: "Sound",
          },
          (value) => setCondition({ brittle: answer(value) }),
        )}
        {choice(
          "Earlier bodge",
          resolved.condition.bodged ? "yes" : "no",
          { no: "None noted", yes: "Noted" },
          (value) => setCondition({ bodged: value === "yes" }),
        )}
        {choice("Fault codes", content.codes ? "yes" : "no", { no: "None", yes: "Present: scan and clear" }, (value) =>
          onChange?.((now) => ({ ...now, codes: value === "yes" })),
        )}
        <NumberBox
          label="Finding out, at most, hours"
          value={content.diagnosis?.hours ?? null}
          least={0}
          decimals={1}
          placeholder="none sold"
          isDisabled={!onChange}
          onValue={(hours) =>
            onChange?.((now) => ({ ...now, diagnosis: hours ? { buys: now.diagnosis?.buys ?? "", hours } : null }))
          }
        />
        <Field
          label="What finding out buys"
          value={content.diagnosis?.buys ?? ""}
          placeholder="swap the coil, read again under load"
          isDisabled={!onChange || !content.diagnosis}
          maxLength={200}
          onChange={(buys) =>
            onChange?.((now) => (now.diagnosis ? { ...now, diagnosis: { ...now.diagnosis, buys } } : now))
          }
        />
        {choice(
          "Arrives",
          content.arrival ?? "cold",
          { cold: "Cold", warm: "Warm", hot: "Hot: has to cool" },
          (value) => onChange?.((now) => ({ ...now, arrival: value as "cold" | "warm" | "hot" })),
        )}
        <Field
          label="Plugs now in it"
          defaultValue={fitted}
          isDisabled={!onChange}
          placeholder="unknown"
          onBlur={(event) => setHistory({ plug_fitted: (event.target as HTMLInputElement).value.trim() || null })}
        />
        <Field
          className="whole"
          label="Where the car lives"
          defaultValue={lives}
          isDisabled={!onChange}
          placeholder="unknown"
          onBlur={(event) => setCondition({ lives: (event.target as HTMLInputElement).value.trim() || null })}
        />
        <fieldset className="wells whole">
          <legend>Plug wells</legend>
          {[...page.sheet.reach.cylinders]
            .sort((a, b) => a.number - b.number)
            .map(({ number }) => (
              <Choice
                key={number}
                label={`Cylinder ${number}`}
                value={condition.wells?.[String(number)] ?? "dry"}
                options={optionsOf(WELLS)}
                isDisabled={!onChange}
                onPick={(well) => setCondition({ wells: { ...condition.wells, [String(number)]: well as Well } })}
              />
            ))}
        </fieldset>
      </Grid>
      {assumed.length > 0 && (
        <p>
          <Small>
            Unknown, so assumed: {assumed.includes("plugs_changed_km") && "never changed; "}
            {assumed.includes("odometer_km") && `${format.distance(resolved.history.odometer_km)} driven; `}
            {assumed.includes("plugs_changed_years") && `${format.years(resolved.history.plugs_changed_years)} since; `}
            {assumed.includes("compound_used") && "no compound."}
          </Small>
        </p>
      )}
      <NoteOnVehicle
        vehicleId={page.vehicle.id}
        problem={problem}
        isDisabled={!onChange}
        onClose={onClose}
        known={past}
      />
    </Dialog>
  );
}
