import { memo, type ReactNode } from "react";
import type { Scope, Sheet } from "../../api/client";
import { useSession } from "../../session/SessionGate";
import { Asked, KeyHint, Small, Strong, Unseen } from "../../shared/parts";
import { SOAKS } from "../panels/soaks";
import { byHours } from "../scopes/works";

interface Props {
  sheet: Sheet;
  /** Hours set by hand, as the scope keeps them. */
  hours?: Scope["hours"];
  onTrouble?: () => void;
  onHours: () => void;
  onAdjust?: () => void;
  onLines?: () => void;
  onSchools?: () => void;
  /** When it can be, once the days were looked at. */
  when?: ReactNode;
}

/** Under the total: what could happen and up to what amount, when it is ready, and what the hours stand on. */
export const WhatIfs = memo(function WhatIfs({
  sheet,
  hours,
  onTrouble,
  onHours,
  onAdjust,
  onLines,
  onSchools,
  when,
}: Props) {
  const { format } = useSession();
  const { trouble, estimate } = sheet;
  if (!estimate) return null;
  return (
    <dl>
      {trouble?.allowance.slice(0, 3).map((row) => (
        <div className="line" key={row.broken}>
          <dt>
            {row.broken === 1 ? "If a plug breaks" : `If ${row.broken} break`} <Small>{format.oneIn(row.chance)}</Small>
          </dt>
          <dd>{format.signed(row.extra_cents)}</dd>
        </div>
      ))}
      {trouble && (
        <div className="line">
          <dt>
            <Asked onPress={onTrouble}>
              <Strong>Not above, without a call</Strong>
            </Asked>
          </dt>
          <dd>
            <Strong>{format.money(trouble.not_above_cents)}</Strong>
          </dd>
        </div>
      )}
      {trouble && trouble.likely_cents != null && (
        <div className="line">
          <dt>
            Likely total <Small>trouble in {Math.round((1 - trouble.no_trouble) * 100)} of 100</Small>
          </dt>
          <dd>{format.money(trouble.likely_cents)}</dd>
        </div>
      )}
      {(trouble?.unpriced?.length ?? 0) > 0 && (
        <div className="line">
          <dt>
            <Small>What-ifs leave out {trouble?.unpriced?.join(", ")}: no price known</Small>
          </dt>
        </div>
      )}
      {sheet.soak && sheet.soak.in_force !== "none" && (
        <div className="line">
          <dt>
            Soak{" "}
            <Small>
              {sheet.soak.chosen ? "chosen" : "recommended"}
              {sheet.estimate?.plan.added && "; then turned over with the plugs out"}
            </Small>
          </dt>
          <dd>
            <Asked onPress={onTrouble}>{SOAKS[sheet.soak.in_force]}</Asked>
          </dd>
        </div>
      )}
      {when ??
        (sheet.ready && (
          <div className="line">
            <dt>
              Ready <Small>in an empty shop</Small>{" "}
              {sheet.cooling_minutes ? <Small>{format.minutes(sheet.cooling_minutes)} min to cool</Small> : null}
            </dt>
            <dd>{format.wall(sheet.ready)}</dd>
          </div>
        ))}
      <div className="line">
        <dt>
          Hours quoted{" "}
          {sheet.quoted_share !== undefined && <Small>{enough(sheet.quoted_share, trouble?.all_told_share)}</Small>}
        </dt>
        <dd>
          <Asked onPress={onHours}>
            {format.hours(estimate.hours.quoted)} h<Unseen> quoted: why?</Unseen>
          </Asked>
        </dd>
      </div>
      {estimate.hours.computed !== undefined && (
        <div className="line">
          <dt>
            Computed <Small>{estimate.hours.reason}</Small>
          </dt>
          <dd>{format.hours(estimate.hours.computed)} h</dd>
        </div>
      )}
      {onAdjust && (
        <div className="line">
          <dt>
            <Small>
              {sheet.set_aside && hours ? `${byHours(sheet.set_aside.by_hours, format)} was for other work` : "By hand"}
            </Small>
          </dt>
          <dd>
            <Asked onPress={onAdjust}>
              <Small>
                hours, discount <KeyHint>J</KeyHint>
              </Small>
            </Asked>{" "}
            <Asked onPress={onLines}>
              <Small>
                other work <KeyHint>+</KeyHint>
              </Small>
            </Asked>
          </dd>
        </div>
      )}
      {onSchools && (
        <div className="line">
          <dt>
            <Small>Where practitioners disagree</Small>
          </dt>
          <dd>
            <Asked onPress={onSchools}>
              <Small>
                schools <KeyHint>−</KeyHint>
              </Small>
            </Asked>
          </dd>
        </div>
      )}
    </dl>
  );
});

/** Both shares for what they are: of jobs that go without trouble, and of all. */
function enough(calm: number, allTold?: number): string {
  const of100 = (share: number) => Math.round(share * 100);
  const whole = allTold === undefined ? "" : `, for ${of100(allTold)} all told`;
  return `enough for ${of100(calm)} of 100 without removal trouble${whole}`;
}
