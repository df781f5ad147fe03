import styled from "styled-components";
import { ruledTable } from "../../shared/ruledTable";
import { type Content, type QuotePage, type Resolved } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Dialog } from "../../shared/Dialog";
import { Choice } from "../../shared/fields/Choice";
import { DistanceBox } from "../../shared/fields/DistanceBox";
import { NumberBox } from "../../shared/fields/NumberBox";
import { Button, Small, Unseen } from "../../shared/parts";
import { FindingsList } from "./FindingsList";
import { NoteOnVehicle } from "./NoteOnVehicle";
import { asEntered, type Construction, CONSTRUCTIONS, type Fitted, type Past, withPast } from "./plugPasts";

const Table = styled.table`
  font-size: 14px;
  margin: 10px 0;
  ${ruledTable(8, 5)}
  td {
    vertical-align: middle;
  }
  td:first-child {
    font-weight: 650;
    width: 36px;
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

/** What is in the head and since when, cylinder by cylinder. What is left as it stands is the car's. */
export function PlugsDialog({ page, content, resolved, problem, onChange, onClose }: Props) {
  const { shop, format } = useSession();
  const history = asEntered(resolved.history, content);
  const numbers = page.sheet.reach.cylinders.map((cylinder) => cylinder.number).sort((a, b) => a - b);
  const setCar = (fitted: Fitted | null) => onChange?.((now) => ({ ...now, history: { ...now.history, fitted } }));
  return (
    <Dialog title={`Plugs in ${page.vehicle.plate}`} onClose={onClose} wide>
      <p>
        <Small>
          The plug that is fitted decides its odds and when it is due. A cylinder's own entry wins over the car's, which
          stands in gray where nothing is entered.
        </Small>
      </p>
      <Table>
        <thead>
          <tr>
            <th scope="col">No.</th>
            <th scope="col">changed at, {shop.distance_unit}</th>
            <th scope="col">years ago</th>
            <th scope="col">fitted</th>
            <th scope="col">good for, {shop.distance_unit}</th>
            <th scope="col">
              <Unseen>back to the car's</Unseen>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>all</td>
            <td>{format.distance(history.plugs_changed_km)}</td>
            <td>{format.figure(history.plugs_changed_years)}</td>
            <FittedCells
              fitted={history.fitted}
              name="all cylinders"
              standard="as the profile"
              isDisabled={!onChange}
              onFitted={setCar}
            />
            <td />
          </tr>
          {numbers.map((number) => (
            <Cylinder
              key={number}
              number={number}
              own={history.cylinders?.[String(number)]}
              car={history}
              isDisabled={!onChange}
              onPast={(past) => onChange?.((now) => withPast(now, number, past))}
            />
          ))}
        </tbody>
      </Table>
      <FindingsList page={page} isDisabled={!onChange} />
      <NoteOnVehicle
        vehicleId={page.vehicle.id}
        problem={problem}
        isDisabled={!onChange}
        onClose={onClose}
        known={() => ({ fitted: history.fitted ?? null, cylinders: history.cylinders ?? {} })}
      />
    </Dialog>
  );
}

interface CylinderProps {
  number: number;
  /** What is entered for it alone; the rest is the car's, shown where nothing is entered. */
  own: Past | undefined;
  car: Past;
  isDisabled: boolean;
  onPast: (past: Past | null) => void;
}

function Cylinder({ number, own, car, isDisabled, onPast }: CylinderProps) {
  const { format } = useSession();
  return (
    <tr>
      <td>{number}</td>
      <td>
        <DistanceBox
          bare
          label={`Cylinder ${number}: changed at`}
          km={own?.plugs_changed_km ?? null}
          placeholder={format.bareDistance(car.plugs_changed_km ?? 0)}
          isDisabled={isDisabled}
          onKm={(km) => onPast({ plugs_changed_km: km ?? undefined })}
        />
      </td>
      <td>
        <NumberBox
          bare
          label={`Cylinder ${number}: years ago`}
          value={own?.plugs_changed_years ?? null}
          placeholder={format.figure(car.plugs_changed_years ?? 0)}
          least={0}
          isDisabled={isDisabled}
          onValue={(value) => onPast({ plugs_changed_years: value ?? undefined })}
        />
      </td>
      <FittedCells
        fitted={own?.fitted}
        name={`cylinder ${number}`}
        standard="as the car"
        isDisabled={isDisabled}
        onFitted={(fitted) => onPast({ fitted: fitted ?? undefined })}
      />
      <td>
        {own && !isDisabled && (
          <Button onPress={() => onPast(null)}>
            as the car<Unseen>: cylinder {number}</Unseen>
          </Button>
        )}
      </td>
    </tr>
  );
}

interface FittedProps {
  fitted: Fitted | undefined;
  name: string;
  standard: string;
  isDisabled: boolean;
  onFitted: (fitted: Fitted | null) => void;
}

const USUAL_KM = 100_000;
/** Nothing of its own: what the car or the profile says. */
const AS_BEFORE = "as-before";

function FittedCells({ fitted, name, standard, isDisabled, onFitted }: FittedProps) {
  const pick = (value: string) =>
    onFitted(
      value === AS_BEFORE
        ? null
        : { construction: value as Construction, interval_km: fitted?.interval_km ?? USUAL_KM },
    );
  return (
    <>
      <td>
        <Choice
          bare
          label={`Fitted, ${name}`}
          value={fitted?.construction ?? AS_BEFORE}
          options={[
            { id: AS_BEFORE, text: standard },
            ...Object.entries(CONSTRUCTIONS).map(([id, text]) => ({ id, text })),
          ]}
          isDisabled={isDisabled}
          onPick={pick}
        />
      </td>
      <td>
        {fitted && (
          <DistanceBox
            bare
            label={`Good for, ${name}`}
            km={fitted.interval_km}
            isDisabled={isDisabled}
            onKm={(km) => km && onFitted({ ...fitted, interval_km: km })}
          />
        )}
      </td>
    </>
  );
}
