import type { Scope, Sheet } from "../api/client";
import { useKeys } from "../shared/keys";
import { letter, useCylinderKeys } from "../shared/useCylinderKeys";
import { PANELS, type Panel } from "./panels/panels";
import type { ScopeEdits } from "./scopes/scopeEdits";
import { WORKS } from "./scopes/works";

/** Adding what is nearly free, in the order it stands. */
export const BUNDLE_KEYS = ["u", "i", "o"];

interface Wanted {
  sheet: Sheet;
  stale: boolean;
  scopes: number;
  beside: boolean;
  pinned: boolean;
  edits: ScopeEdits;
  setPanel: (panel: Panel) => void;
  adjust: () => void;
  addLines: () => void;
  seeSchools: () => void;
  seeTimes: () => void;
  save: () => void;
  print: () => void;
  offer: () => void;
}

/** The keys of the Quote page: digits choose cylinders, letters choose work, no two things share one. */
export function useQuoteKeys({
  sheet,
  stale,
  scopes,
  beside,
  pinned,
  edits,
  setPanel,
  adjust,
  addLines,
  seeSchools,
  seeTimes,
  save,
  print,
  offer,
}: Wanted): void {
  const cylinders = useCylinderKeys(
    sheet.reach.cylinders.map((cylinder) => cylinder.number),
    edits.press,
  );
  const works = sheet.offers.works.map((work) => {
    const { label, key } = WORKS[work as Scope["works"][number]];
    return letter(key, label, () => edits.toggleWork(work as Scope["works"][number]));
  });
  const bundles = (sheet.while_open ?? [])
    .slice(0, BUNDLE_KEYS.length)
    .map((bundle, i) => letter(BUNDLE_KEYS[i] ?? "", `Add: ${bundle.label}`, () => !stale && edits.add(bundle)));
  useKeys([
    ...cylinders,
    letter("a", "All cylinders, or none", edits.toggleAll),
    ...works,
    ...bundles,
    ...PANELS.map(({ name, key, told }) => letter(key, told, () => setPanel(name))),
    ...(pinned ? [letter("z", "Let go of every pinned route", () => edits.pin({}))] : []),
    letter("n", "Another scope beside this one", edits.another),
    letter("d", "Drop this scope", edits.drop),
    ...(scopes > 1
      ? [
          letter("[", "Scope before", () => edits.turn(-1)),
          letter("]", "Next scope", () => edits.turn(1)),
          letter("=", beside ? "Back to the drawing" : "Scopes side by side", () =>
            setPanel(beside ? "layers" : "beside"),
          ),
        ]
      : []),
    ...(sheet.estimate
      ? [letter("j", "Set hours or a discount by hand", adjust), letter("+", "Other work, and parts by hand", addLines)]
      : []),
    letter("-", "Schools in force for this job", seeSchools),
    letter("/", "When can it be? Find it a time", seeTimes),
    letter("s", "Save as a revision", save),
    letter(".", "The yes: offer what is saved, keep the answer", offer),
    letter("v", "Printable page of the saved quote", print),
  ]);
}
