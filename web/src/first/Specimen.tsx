import styled from "styled-components";
import { formatter } from "../shared/format";
import { Small } from "../shared/parts";
import type { Place } from "../shared/places";

/** Sizes of paper in millimeters, drawn to one scale. */
const SIZES = { a4: [210, 297], letter: [215.9, 279.4] } as const;

const Paper = styled.div<{ $width: number; $height: number }>`
  position: sticky;
  top: 0;
  width: ${(p) => p.$width * 1.22}px;
  max-width: 100%;
  aspect-ratio: ${(p) => `${p.$width} / ${p.$height}`};
  border: 1px solid var(--strong);
  background: var(--page);
  box-shadow: 3px 4px 0 var(--rule);
  padding: 22px 20px;
  display: flex;
  flex-direction: column;
  font-size: 13px;
  h2 {
    font-size: 15px;
    font-weight: 650;
    overflow-wrap: anywhere;
    border-bottom: 1.4px solid var(--ink);
    padding-bottom: 8px;
    margin-bottom: 8px;
  }
  dl {
    margin: 0;
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    padding: 5px 0;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    color: var(--second);
  }
  dd {
    margin: 0;
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .foot {
    margin-top: auto;
  }
`;

interface Props {
  place: Place;
  shop: string;
  rate: number | null;
  tax: number | null;
  taxName: string;
  exponent: number;
}

/** The shop's paper to scale, with figures as it will write them. */
export function Specimen({ place, shop, rate, tax, taxName, exponent }: Props) {
  const format = formatter({
    locale: place.locale,
    distance_unit: place.distance,
    currency: place.currency,
    currency_exponent: exponent,
    time_zone: place.timeZone,
  });
  const [width, height] = SIZES[place.paper];
  const now = new Date();
  const rows = [
    ["Labor, one hour", rate === null ? "·" : format.moneyWithSign(Math.round(rate * 10 ** exponent))],
    [taxName || "Tax", tax ? `${format.figure(tax)} %` : "none"],
    ["An odometer", format.distance(181_400)],
    ["Quoted", `${format.hours(2.6)} h`],
    ["Now, there", format.when(now.toISOString())],
  ];
  return (
    <Paper $width={width} $height={height} aria-label="How the shop's paper will read" role="img">
      <h2>{shop || "Your shop"}</h2>
      <dl>
        {rows.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <Small className="foot">
        {place.paper === "a4" ? "A4" : "Letter"}, {format.figure(width)} × {format.figure(height)} mm
      </Small>
    </Paper>
  );
}
