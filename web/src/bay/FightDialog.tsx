import type { CardStanding, Mark } from "../api/client";
import { Dialog } from "../shared/Dialog";
import type { Formatter } from "../shared/format";
import { Notice, Small } from "../shared/parts";
import type { InHand } from "./inHand";
import { mark } from "./offlineQueue";
import { Choices, Press } from "./parts";
import { FIGHTS } from "./words";

interface Props {
  hand: InHand;
  standing: CardStanding;
  phone: string | null;
  format: Formatter;
  press: (...marks: Mark[]) => void;
  onClose: () => void;
}

/** "It fights": what it is, what it adds in minutes and money, and whether the agreed limit still holds it. */
export function FightDialog({ hand, standing, phone, format, press, onClose }: Props) {
  const { piece, plug } = hand;
  const kinds = plug ? (["stubborn", "broken", "thread"] as const) : (["connector", "bolt", "stubborn"] as const);
  const adds = (what: string) => standing.money?.next.find((row) => row.target === plug?.target && row.what === what);
  const begin = (what: (typeof kinds)[number]) => {
    const about = plug ? { plug: plug.target, nth: plug.nth } : {};
    const came = what === "broken" || what === "thread" ? what : null;
    const isIn = plug?.step === "well" || plug?.step === "out";
    press(
      ...(came && isIn ? [mark("out", { ...about, outcome: came })] : []),
      mark("fight", { what, piece: piece.id, ...about }),
    );
    onClose();
  };
  return (
    <Dialog title={`It fights: ${piece.label}`} onClose={onClose} wide>
      {kinds.map((what) => {
        const row = adds(what);
        return (
          <section key={what} style={{ borderTop: "1px solid var(--rule)", padding: "10px 0" }}>
            <Choices style={{ margin: 0, alignItems: "center" }}>
              <Press onPress={() => begin(what)}>{FIGHTS[what].title}</Press>
              <Small>
                {row
                  ? `about ${format.minutes(row.minutes)} min; the job then comes to ${format.money(row.total_cents)}`
                  : what === "stubborn"
                    ? "ours: never billed"
                    : "say what it is; the advisor prices it"}
              </Small>
            </Choices>
            {row?.over && (
              <Notice role="alert" style={{ marginTop: 8 }}>
                <p>
                  <strong>Stop and call first.</strong> That is above the agreed{" "}
                  {format.money(standing.money?.limit_cents ?? 0)}
                  {phone && `: ${phone}`}. “Cylinder {piece.cylinder}: it would come to {format.money(row.total_cents)}.
                  May we go on?”
                </p>
              </Notice>
            )}
          </section>
        );
      })}
      <Small as="p">
        Eyes covered with compressed air, chemicals and extraction. The maker's information comes first.
      </Small>
    </Dialog>
  );
}
