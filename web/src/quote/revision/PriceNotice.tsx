import styled from "styled-components";
import { useSession } from "../../session/SessionGate";
import { list } from "../../shared/format";
import { Button, Notice, Strong } from "../../shared/parts";
import type { PriceChange } from "../../working/workingCopy";

const Spaced = styled(Notice)`
  margin: 10px 18px 0;
  max-width: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  p {
    flex: 1 1 420px;
  }
`;
const WORDS: Record<string, string> = {
  engine: "the engine's profile",
  prices: "the price list",
  house: "the house's figures",
  car: "what is known of the car",
};

/** The price is no longer the one that was on the page when Save was pressed: both totals, and what changed. */
export function PriceNotice({ change, onClose }: { change: PriceChange; onClose: () => void }) {
  const { format } = useSession();
  const money = (cents: number | null) => (cents === null ? "no price" : format.moneyWithSign(cents));
  return (
    <Spaced role="alert">
      <p>
        <Strong>Not saved.</Strong> You were shown {money(change.shown)};{" "}
        {list(change.changed.map((code) => WORDS[code] ?? code))} changed meanwhile, and it is{" "}
        {change.shown === change.now ? "still" : "now"} <Strong>{money(change.now)}</Strong>. The page shows the new
        figures: press Save to keep them.
      </p>
      <Button onPress={onClose}>Understood</Button>
    </Spaced>
  );
}
