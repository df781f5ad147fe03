import { type ReactNode, useMemo } from "react";
import { Choice } from "./fields/Choice";
import { Field } from "./fields/Field";
import { Pick } from "./fields/Pick";
import { localesFor, type Place, timeZones } from "./places";

const PAPERS = [
  { id: "a4", text: "A4" },
  { id: "letter", text: "Letter" },
];
const UNITS = [
  { id: "km", text: "kilometers" },
  { id: "mi", text: "miles" },
];

/** What a shop is called, where it is and how it writes. */
export type ShopPlace = Omit<Place, "currency">;

interface Props {
  name: string;
  onName: (name: string) => void;
  place: ShopPlace;
  onPlace: (change: Partial<ShopPlace>) => void;
  /** What the server found wrong, by the name of the field. */
  faults: { name?: string; time_zone?: string };
  /** A further field, after the way of writing. */
  children?: ReactNode;
}

/** The fields of a shop's name and place, on the first page and in the house. */
export function PlaceFields({ name, onName, place, onPlace, faults, children }: Props) {
  const locales = useMemo(() => localesFor(navigator.language || "en-US"), []);
  const zones = useMemo(() => timeZones(), []);
  return (
    <>
      <Field
        className="wide"
        label="Name"
        value={name}
        onChange={onName}
        isRequired
        maxLength={120}
        autoFocus
        problem={faults.name}
      />
      <Choice
        label="Numbers and dates as in"
        value={place.locale}
        options={locales}
        onPick={(locale) => onPlace({ locale })}
      />
      {children}
      <Choice
        label="Distances in"
        value={place.distance}
        options={UNITS}
        onPick={(unit) => onPlace({ distance: unit as "km" | "mi" })}
      />
      <Choice
        label="Paper"
        value={place.paper}
        options={PAPERS}
        onPick={(paper) => onPlace({ paper: paper as "a4" | "letter" })}
      />
      <Pick
        className="wide"
        label="Time zone"
        value={place.timeZone}
        items={zones}
        onPick={(timeZone) => timeZone && onPlace({ timeZone })}
        none="No time zone is called that."
        isRequired
        problem={faults.time_zone}
      />
    </>
  );
}
