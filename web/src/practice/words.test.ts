import { expect, it } from "vitest";
import { bitsWords, carWords, complaintWords, plugsWords, renewedWords, saidWords, truthWords } from "./words";

it("says what a made-up customer says, and what is written of the car", () => {
  expect(complaintWords({ when: "load", lamp: "blinking" })).toBe(
    "It shakes when I pull away or climb; the lamp blinks.",
  );
  const history = { odometer_km: 140_000, plugs_changed_km: 30_000, plugs_changed_years: 7, compound_used: false };
  const format = { distance: (km: number) => `${km} km`, years: (years: number) => `${years} years` };
  expect(carWords({ history, condition: { corrosion: "light", brittle: true } }, format)).toBe(
    "140000 km · plugs from 30000 km, 7 years ago · light rust · connectors baked brittle",
  );
});

it("tells the truth, and whether what was renewed mends it", () => {
  const truth = { cause: "coil", part: "coil" as const, cylinders: [3], target: "coil-3", label: "Coil 3", plugs: [] };
  expect(truthWords(truth)).toBe("It was the coil at 3: Coil 3 mends it.");
  expect(truthWords({ ...truth, cause: "elsewhere", part: null, label: null })).toBe(
    "It was the mixture or timing: no part of this engine's list mends it.",
  );
  const way = { labels: ["Coil 3", "Plug 3"], cured: true } as Parameters<typeof renewedWords>[0];
  expect(renewedWords(way)).toBe("Coil 3 and Plug 3 renewed: it is mended");
  expect(renewedWords({ ...way, labels: [], cured: false })).toBe("Nothing renewed, and it comes back");
  expect(saidWords("reach")).toBe("what comes off to reach it");
});

it("says which plugs would have fought back", () => {
  expect(plugsWords([])).toBe("");
  expect(plugsWords([{ cylinder: 1, outcome: "free" }])).toBe("Its plugs would have come out freely.");
  expect(
    plugsWords([
      { cylinder: 1, outcome: "free" },
      { cylinder: 5, outcome: "broken" },
    ]),
  ).toBe("The plug of 5 would have broken.");
});

it("counts what was found in bits", () => {
  const format = { figure: (value: number) => value.toFixed(1) };
  expect(bitsWords({ learned: 1.84, hidden: 2.1 }, format)).toBe("1.8 of 2.1 bits found");
  expect(bitsWords({ learned: -0.01, hidden: 2.1 }, format)).toBe("None of 2.1 bits found");
  expect(bitsWords({ learned: -0.6, hidden: 2.1 }, format)).toBe(
    "0.6 bits further from the truth than the 2.1 at the start",
  );
});
