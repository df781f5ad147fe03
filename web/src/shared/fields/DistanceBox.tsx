import { useSession } from "../../session/SessionGate";
import { NumberBox, type NumberBoxProps } from "./NumberBox";

interface Props extends Omit<NumberBoxProps, "value" | "onValue" | "decimals" | "least"> {
  km: number | null;
  onKm: (km: number | null) => void;
}

/** A distance in the shop's unit; kept in km. */
export function DistanceBox({ label, km, onKm, ...rest }: Props) {
  const { format, shop } = useSession();
  return (
    <NumberBox
      {...rest}
      label={`${label}, ${shop.distance_unit}`}
      value={km === null ? null : format.fromKm(km)}
      onValue={(value) => onKm(value === null ? null : format.toKm(value))}
      decimals={0}
      least={0}
    />
  );
}
