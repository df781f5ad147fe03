import { useSession } from "../../session/SessionGate";
import { NumberBox, type NumberBoxProps } from "./NumberBox";

interface Props extends Omit<NumberBoxProps, "value" | "onValue" | "decimals" | "fixed"> {
  cents: number | null;
  onCents: (cents: number | null) => void;
}

/** An amount of the shop's money; kept in its smallest unit. */
export function MoneyBox({ label, cents, onCents, ...rest }: Props) {
  const { shop } = useSession();
  const minor = 10 ** shop.currency_exponent;
  return (
    <NumberBox
      {...rest}
      label={`${label}, ${shop.currency}`}
      value={cents === null ? null : cents / minor}
      onValue={(value) => onCents(value === null ? null : Math.round(value * minor))}
      decimals={shop.currency_exponent}
      fixed
      least={0}
    />
  );
}
