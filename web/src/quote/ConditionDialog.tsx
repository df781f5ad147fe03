import { useState } from "react";
import styled from "styled-components";
import { type Content, type QuotePage, type Resolved } from "../api/client";
import { useSession } from "../session/SessionGate";
import { Dialog } from "../shared/Dialog";
import { Field } from "../shared/Field";
import { numeral } from "../shared/numerals";
import { Small } from "../shared/parts";
import { NoteOnVehicle } from "./NoteOnVehicle";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 14px 20px;
  margin-bottom: 16px;
  align-items: start;
  .name {
    font-size: 13px;
    color: var(--second);
    display: block;
    margin-bottom: 3px;
  }
  input[type="datetime-local"] {
    width: 100%;
    padding: 6px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    min-height: 38px;
  }
  select {
    width: 100%;
    padding: 7px 9px;
    border: 1.2px solid var(--strong);
    border-radius: 4px;
    background: var(--sheet);
    min-height: 38px;
  }
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
    padding: 0;
  }
  .wells label {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 6px;
    align-items: center;
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

/** What is known of the car. "Unknown" is an answer; what is assumed instead is said. */
export function ConditionDialog({ page, content, resolved, problem, onChange, onClose }: Props) {
  const { format, shop } = useSession();
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
  const choice = (label: string, value: string, options: [string, string][], pick: (value: string) => void) => (
    <label>
      <span className="name">{label}</span>
      <select value={value} disabled={!onChange} onChange={(event) => pick(event.target.value)}>
        {options.map(([id, text]) => (
          <option key={id} value={id}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
  const truth = (value: boolean | null | undefined) =>
    value === undefined || value === null ? "unknown" : value ? "yes" : "no";
  const answer = (value: string) => (value === "unknown" ? null : value === "yes");

  return (
    <Dialog title={`Condition and history, ${page.vehicle.plate}`} onClose={onClose} wide>
      <Grid>
        <DistanceField
          label={`Odometer, ${shop.distance_unit}`}
          km={history.odometer_km}
          fallback={resolved.history.odometer_km}
          assumed={assumed.includes("odometer_km")}
          isDisabled={!onChange}
          onKm={(km) => setHistory({ odometer_km: km })}
        />
        <DistanceField
          label={`Plugs last changed at, ${shop.distance_unit}`}
          km={history.plugs_changed_km}
          fallback={resolved.history.plugs_changed_km}
          assumed={assumed.includes("plugs_changed_km")}
          isDisabled={!onChange}
          problem={
            resolved.history.plugs_changed_km > resolved.history.odometer_km ? "is above the odometer" : undefined
          }
          onKm={(km) => setHistory({ plugs_changed_km: km })}
        />
        <NumberField
          label="Years since"
          value={history.plugs_changed_years}
          fallback={resolved.history.plugs_changed_years}
          assumed={assumed.includes("plugs_changed_years")}
          isDisabled={!onChange}
          onValue={(years) => setHistory({ plugs_changed_years: years })}
        />
        {choice(
          "Compound used last time",
          truth(history.compound_used ?? (assumed.includes("compound_used") ? null : resolved.history.compound_used)),
          [
            ["unknown", "Unknown: taken as no"],
            ["yes", "Yes"],
            ["no", "No"],
          ],
          (value) => setHistory({ compound_used: answer(value) }),
        )}
        {choice(
          "Rust",
          resolved.condition.corrosion,
          [
            ["none", "None"],
            ["light", "Light"],
            ["heavy", "Heavy"],
          ],
          (value) => setCondition({ corrosion: value as "none" | "light" | "heavy" }),
        )}
        {choice(
          "Connectors",
          truth(condition.brittle),
          [
            ["unknown", `By age and engine: ${resolved.condition.brittle ? "brittle" : "sound"}`],
            ["yes", "Brittle"],
            ["no", "Sound"],
          ],
          (value) => setCondition({ brittle: answer(value) }),
        )}
        {choice(
          "Earlier bodge",
          resolved.condition.bodged ? "yes" : "no",
          [
            ["no", "None noted"],
            ["yes", "Noted"],
          ],
          (value) => setCondition({ bodged: value === "yes" }),
        )}
        {choice(
          "Fault codes",
          content.codes ? "yes" : "no",
          [
            ["no", "None"],
            ["yes", "Present: scan and clear"],
          ],
          (value) => onChange?.((now) => ({ ...now, codes: value === "yes" })),
        )}
        {choice(
          "Arrives",
          content.arrival ?? "cold",
          [
            ["cold", "Cold"],
            ["warm", "Warm"],
            ["hot", "Hot: has to cool"],
          ],
          (value) => onChange?.((now) => ({ ...now, arrival: value as "cold" | "warm" | "hot" })),
        )}
        <MomentField
          label="Drop-off"
          value={content.drop_off}
          isDisabled={!onChange}
          onMoment={(drop_off) => onChange?.((now) => ({ ...now, drop_off }))}
        />
        <MomentField
          label="Promised for"
          value={content.promised}
          isDisabled={!onChange}
          onMoment={(promised) => onChange?.((now) => ({ ...now, promised }))}
        />
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
          <legend className="name">Plug wells</legend>
          {[...page.sheet.reach.cylinders]
            .sort((a, b) => a.number - b.number)
            .map(({ number }) => (
              <label key={number}>
                {number}
                <select
                  value={condition.wells?.[String(number)] ?? "dry"}
                  disabled={!onChange}
                  onChange={(event) =>
                    setCondition({
                      wells: { ...condition.wells, [String(number)]: event.target.value as "dry" | "wet" | "rusted" },
                    })
                  }
                >
                  <option value="dry">dry</option>
                  <option value="wet">wet</option>
                  <option value="rusted">rusted</option>
                </select>
              </label>
            ))}
        </fieldset>
      </Grid>
      {assumed.length > 0 && (
        <p>
          <Small>
            Unknown, so assumed: {assumed.includes("plugs_changed_km") && "never changed; "}
            {assumed.includes("odometer_km") && `${format.distance(resolved.history.odometer_km)} driven; `}
            {assumed.includes("plugs_changed_years") && `${resolved.history.plugs_changed_years} years since; `}
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

interface NumberProps {
  label: string;
  value: number | null | undefined;
  fallback: number;
  assumed: boolean;
  isDisabled: boolean;
  problem?: string;
  onValue: (value: number | null) => void;
}

/** A figure that may be left empty: empty means unknown. Refuses what is not a number, and says so. */
function NumberField({ label, value, fallback, assumed, isDisabled, problem, onValue }: NumberProps) {
  const [text, setText] = useState(
    value === null || value === undefined ? (assumed ? "" : String(fallback)) : String(value),
  );
  const [wrong, setWrong] = useState("");
  const leave = () => {
    const typed = numeral(text);
    if (text.trim() === "") onValue(null);
    else if (typed) onValue(typed.number);
    else return setWrong("Enter a number, or leave empty for unknown.");
    setWrong("");
  };
  return (
    <Field
      label={label}
      value={text}
      onChange={setText}
      onBlur={leave}
      inputMode="numeric"
      isDisabled={isDisabled}
      placeholder="unknown"
      problem={wrong || problem}
    />
  );
}

/** A moment of the shop's wall clock; empty means now, or no promise. */
function MomentField({
  label,
  value,
  isDisabled,
  onMoment,
}: {
  label: string;
  value: string | null | undefined;
  isDisabled: boolean;
  onMoment: (value: string | null) => void;
}) {
  return (
    <label>
      <span className="name">{label}</span>
      <input
        type="datetime-local"
        defaultValue={value ?? ""}
        disabled={isDisabled}
        onBlur={(event) => onMoment(event.target.value || null)}
      />
    </label>
  );
}

function DistanceField({
  km,
  fallback,
  onKm,
  ...rest
}: Omit<NumberProps, "value" | "onValue"> & { km: number | null | undefined; onKm: (km: number | null) => void }) {
  const { format } = useSession();
  return (
    <NumberField
      {...rest}
      value={km === null || km === undefined ? km : format.fromKm(km)}
      fallback={format.fromKm(fallback)}
      onValue={(value) => onKm(value === null ? null : format.toKm(value))}
    />
  );
}
