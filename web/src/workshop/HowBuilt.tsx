import styled from "styled-components";
import { Choice } from "../shared/fields/Choice";
import { NumberBox } from "../shared/fields/NumberBox";
import type { NewSketch } from "../api/client";

/** How an engine is built and sits. */
export type Built = Pick<NewSketch, "arrangement" | "mounting" | "cylinders" | "ignition">;

export const USUAL: Built = { arrangement: "inline", mounting: "sideways", cylinders: 4, ignition: "coil-on-plug" };

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px 16px;
`;

const words = (...ids: string[]) => ids.map((id) => ({ id, text: id.replaceAll("-", " ") }));

interface Props {
  built: Built;
  onBuilt: (built: Built) => void;
  problem?: string;
}

/** Arrangement, how it sits, cylinders, ignition. */
export function HowBuilt({ built, onBuilt, problem }: Props) {
  const arranged = (arrangement: Built["arrangement"]) => {
    const usual = { single: 1, inline: 4, vee: 6, flat: 4 }[arrangement];
    onBuilt({ ...built, arrangement, cylinders: usual });
  };
  return (
    <Grid>
      <Choice
        label="Arrangement"
        value={built.arrangement}
        options={words("inline", "vee", "flat", "single")}
        onPick={(id) => arranged(id as Built["arrangement"])}
      />
      <Choice
        label="Sits"
        value={built.mounting}
        options={words("sideways", "lengthwise")}
        onPick={(id) => onBuilt({ ...built, mounting: id as Built["mounting"] })}
      />
      <NumberBox
        label="Cylinders"
        value={built.cylinders}
        decimals={0}
        least={1}
        onValue={(cylinders) => cylinders !== null && onBuilt({ ...built, cylinders })}
        problem={problem}
      />
      <Choice
        label="Ignition"
        value={built.ignition}
        options={words("coil-on-plug", "paired", "rail", "distributor", "single-coil")}
        onPick={(id) => onBuilt({ ...built, ignition: id as Built["ignition"] })}
      />
    </Grid>
  );
}
