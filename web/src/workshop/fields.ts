/** A choice of a field: what is stored, and its words. */
export interface Word {
  id: string;
  text: string;
}

interface Named {
  key: string;
  label: string;
  help?: string;
}

/** One thing the format can say, and how it is edited. */
export type FieldSpec = Named &
  (
    | { kind: "text" | "lines" | "number" | "points" | "pair" | "flag" | "ids" | "entries" | "cylinder" | "cylinders" }
    | { kind: "loose-parts" | "answers" | "json" }
    | { kind: "choice"; words: Word[]; numeric?: boolean }
    | {
        kind: "rows";
        fields: FieldSpec[];
        fresh: Record<string, unknown>;
        one: string;
        /** Whether the format needs the list, be it empty. */
        isNeeded?: boolean;
      }
    | { kind: "object"; fields: FieldSpec[] }
  );

const words = (...ids: string[]): Word[] => ids.map((id) => ({ id, text: id.replaceAll("-", " ") }));

const part: FieldSpec = { key: "part", label: "part number", kind: "text" };
const quantity: FieldSpec = { key: "quantity", label: "how many", kind: "number" };
const chance: FieldSpec = { key: "chance", label: "chance, 0 to 1", kind: "number" };
const minutes: FieldSpec = { key: "minutes", label: "minutes", kind: "points" };
const cautions: FieldSpec = { key: "cautions", label: "Cautions, one a line", kind: "lines" };
const needs: FieldSpec = { key: "needs", label: "Equipment it takes", kind: "ids", help: "names, with commas" };

/** What else a layer is: everything of a step but its name, its minutes and what it lies over. */
export const STEP_FIELDS: FieldSpec[] = [
  { key: "remove", label: "Off: low, likely, high", kind: "points" },
  { key: "refit", label: "On: low, likely, high", kind: "points" },
  { key: "zone", label: "Where", kind: "choice", words: words("top", "front", "rear", "left", "right", "under") },
  { key: "people", label: "People", kind: "number" },
  { key: "battery", label: "Battery off", kind: "flag" },
  { key: "rust_prone", label: "Rusts", kind: "flag" },
  { key: "brittle", label: "Brittle when old", kind: "flag" },
  {
    key: "back",
    label: "Goes back",
    kind: "choice",
    words: [
      { id: "at-once", text: "at once, so that nothing falls in" },
      { id: "after-run", text: "after the running check" },
    ],
  },
  { key: "opens_ports", label: "Opens the intake ports", kind: "flag" },
  {
    key: "takes_out",
    label: "Takes out",
    kind: "choice",
    words: [
      { id: "plug", text: "a plug" },
      { id: "none", text: "no plug" },
    ],
  },
  { key: "cylinder", label: "Belongs to one cylinder", kind: "cylinder" },
  needs,
  { key: "after", label: "Comes after", kind: "entries", help: "follows from the drawing until it is changed here" },
  {
    key: "fasteners",
    label: "Fasteners",
    kind: "rows",
    one: "fastener",
    fresh: { what: "bolt", count: 1 },
    fields: [
      { key: "what", label: "what", kind: "text" },
      { key: "size", label: "size", kind: "text" },
      { key: "count", label: "how many", kind: "number" },
      { key: "torque_nm", label: "N·m", kind: "number" },
      { key: "pattern", label: "pattern", kind: "text" },
      part,
      { key: "rule", label: "when disturbed", kind: "choice", words: words("replace", "reuse") },
      { key: "passes", label: "passes", kind: "number" },
    ],
  },
  {
    key: "connectors",
    label: "Connectors that come off",
    kind: "rows",
    one: "connector",
    fresh: { what: "", count: 1 },
    fields: [
      { key: "what", label: "what", kind: "text" },
      { key: "count", label: "how many", kind: "number" },
    ],
  },
  {
    key: "hoses",
    label: "Hoses that come off",
    kind: "rows",
    one: "hose",
    fresh: { what: "" },
    fields: [
      { key: "what", label: "what", kind: "text" },
      { key: "to", label: "goes to", kind: "text" },
    ],
  },
  {
    key: "seals",
    label: "Seals it disturbs",
    kind: "rows",
    one: "seal",
    fresh: { part: "", quantity: 1, rule: "replace" },
    fields: [
      part,
      quantity,
      { key: "rule", label: "when disturbed", kind: "choice", words: words("replace", "inspect") },
      chance,
    ],
  },
  {
    key: "clips",
    label: "Clips that may break",
    kind: "rows",
    one: "clip",
    fresh: { part: "", count: 1 },
    fields: [part, { key: "count", label: "how many", kind: "number" }, chance],
  },
  {
    key: "mishaps",
    label: "What may happen",
    kind: "rows",
    one: "mishap",
    fresh: { what: "", chance: 0.02, minutes: [5, 10, 20] },
    fields: [
      { key: "what", label: "what", kind: "text" },
      chance,
      minutes,
      { key: "parts", label: "parts", kind: "loose-parts" },
    ],
  },
  {
    key: "waits",
    label: "Waits",
    kind: "rows",
    one: "wait",
    fresh: { minutes: 15, when: "after-refit" },
    fields: [
      { key: "for", label: "for", kind: "text" },
      { key: "when", label: "when", kind: "choice", words: words("before-remove", "after-remove", "after-refit") },
      { key: "minutes", label: "minutes", kind: "number" },
      { key: "holds_bay", label: "holds the bay", kind: "flag" },
    ],
  },
  {
    key: "releases",
    label: "Fluids it lets out",
    kind: "rows",
    one: "fluid",
    fresh: { fluid: "coolant", liters: 0.5 },
    fields: [
      { key: "fluid", label: "fluid", kind: "text" },
      { key: "liters", label: "liters", kind: "number" },
    ],
  },
  {
    key: "closing",
    label: "Closing work",
    kind: "rows",
    one: "closing work",
    fresh: { what: "", minutes: [3, 5, 10] },
    fields: [
      { key: "what", label: "what", kind: "text" },
      minutes,
      needs,
      { key: "without", label: "minutes without its tool", kind: "points" },
      { key: "order", label: "order", kind: "number" },
      { key: "running", label: "with the engine running", kind: "flag" },
    ],
  },
  { key: "when", label: "Only on some cars", kind: "answers", help: "the answers it exists under" },
  cautions,
];

const GAP: FieldSpec[] = [
  { key: "low", label: "low, mm", kind: "number" },
  { key: "high", label: "high, mm", kind: "number" },
];
const FITTED: FieldSpec[] = [
  part,
  { key: "reach_mm", label: "reach, mm", kind: "number" },
  { key: "hex_mm", label: "hex, mm", kind: "number" },
  { key: "torque_nm", label: "torque, N·m", kind: "number" },
  { key: "gap_mm", label: "Gap", kind: "object", fields: GAP },
];

/** What work at the bottom is. */
export const TARGET_FIELDS: FieldSpec[] = [
  {
    key: "work",
    label: "Work",
    kind: "choice",
    words: words(
      "plug",
      "coil",
      "wire",
      "boot",
      "cap-and-rotor",
      "tube-seal",
      "cover-gasket",
      "compression",
      "look",
      "other",
    ),
  },
  { key: "minutes", label: "Minutes: low, likely, high", kind: "points" },
  { key: "cylinder", label: "Cylinder", kind: "cylinder" },
  { key: "cylinders", label: "Or several", kind: "cylinders" },
  { key: "label", label: "Called", kind: "text" },
  { key: "position", label: "Place", kind: "text", help: "where a cylinder has two: intake side" },
  { key: "coil", label: "Coil", kind: "text", help: "its id, where a cylinder has two" },
  { key: "plugs", label: "Plugs it is", kind: "number" },
  { key: "plugs_out", label: "Plugs are out for it", kind: "flag" },
  { key: "crank", label: "The engine is cranked for it", kind: "flag" },
  { key: "wrench_fits", label: "A torque wrench fits", kind: "flag" },
  { key: "extraction_factor", label: "Extraction takes times", kind: "number" },
  { key: "tools", label: "Tools, one a line", kind: "lines" },
  {
    key: "ways",
    label: "Ways to it",
    kind: "rows",
    isNeeded: true,
    one: "way",
    fresh: { id: "", through: [] },
    fields: [
      { key: "id", label: "called", kind: "text" },
      { key: "through", label: "goes through", kind: "entries" },
      { key: "factor", label: "takes times", kind: "number" },
      needs,
      cautions,
    ],
  },
  {
    key: "parts",
    label: "Parts of its own",
    kind: "rows",
    one: "part",
    fresh: { part: "", quantity: 1 },
    fields: [part, quantity],
  },
  { key: "plug", label: "A plug of its own", kind: "object", fields: FITTED },
  cautions,
];

/** What the engine is besides its layers and its work. */
export const ENGINE_FIELDS: FieldSpec[] = [
  { key: "name", label: "Name", kind: "text" },
  { key: "notes", label: "Notes", kind: "lines" },
  { key: "arrangement", label: "Arrangement", kind: "choice", words: words("inline", "vee", "flat", "single") },
  { key: "mounting", label: "Sits", kind: "choice", words: words("lengthwise", "sideways") },
  { key: "head", label: "Head", kind: "choice", words: words("aluminum", "cast-iron") },
  {
    key: "aspiration",
    label: "Aspiration",
    kind: "choice",
    words: words("natural", "turbo", "supercharged", "twin-charged"),
  },
  { key: "injection", label: "Injection", kind: "choice", words: words("port", "direct", "carburetor") },
  {
    key: "ignition",
    label: "Ignition",
    kind: "choice",
    words: words("coil-on-plug", "paired", "rail", "distributor", "single-coil"),
  },
  { key: "thermal_mass", label: "Cools as one", kind: "choice", words: words("small", "medium", "large") },
  { key: "boot_grease", label: "Boot grease", kind: "choice", words: words("forbidden", "film") },
  { key: "hot_valley", label: "Hot valley", kind: "flag" },
  { key: "provisional", label: "Provisional: only sketched", kind: "flag" },
  {
    key: "soaks",
    label: "Soaks allowed",
    kind: "ids",
    help: "none, short, crack-and-soak, overnight, overnight-impact",
  },
  {
    key: "plug",
    label: "The plug",
    kind: "object",
    fields: [
      ...FITTED,
      { key: "per_cylinder", label: "plugs a cylinder", kind: "number" },
      { key: "grade", label: "grade", kind: "choice", words: words("nickel", "platinum", "iridium") },
      {
        key: "construction",
        label: "construction",
        kind: "choice",
        words: words("one-piece", "one-piece-long-reach", "multi-piece"),
      },
      { key: "thread_mm", label: "thread, mm", kind: "number" },
      { key: "seat", label: "seat", kind: "choice", words: words("gasket", "taper") },
      { key: "torque_range_nm", label: "torque from, to, N·m", kind: "pair" },
      {
        key: "torque_assumes",
        label: "torque is meant for",
        kind: "choice",
        words: words("dry", "compound", "unstated"),
      },
      { key: "tighten", label: "tighten by", kind: "choice", words: words("torque", "angle") },
      { key: "socket_points", label: "socket points", kind: "choice", words: words("6", "12"), numeric: true },
      { key: "compound", label: "thread compound", kind: "choice", words: words("none", "film", "unstated") },
      { key: "interval_km", label: "due every, km", kind: "number" },
      { key: "interval_months", label: "due every, months", kind: "number" },
    ],
  },
  {
    key: "cylinders",
    label: "Cylinders",
    kind: "rows",
    isNeeded: true,
    one: "cylinder",
    fresh: { number: 1, position: 1 },
    fields: [
      { key: "number", label: "number", kind: "number" },
      { key: "bank", label: "bank", kind: "choice", words: words("left", "right", "front", "rear") },
      { key: "position", label: "position from the front", kind: "number" },
    ],
  },
  {
    key: "coils",
    label: "Coils",
    kind: "rows",
    one: "coil",
    fresh: { id: "", part: "", cylinders: [1] },
    fields: [{ key: "id", label: "id", kind: "text" }, part, { key: "cylinders", label: "fires", kind: "cylinders" }],
  },
  {
    key: "variants",
    label: "Questions about the car",
    kind: "rows",
    one: "question",
    fresh: {
      id: "",
      ask: "",
      options: [
        { id: "yes", label: "yes" },
        { id: "no", label: "no" },
      ],
      usual: "no",
    },
    fields: [
      { key: "id", label: "id", kind: "text" },
      { key: "ask", label: "question", kind: "text" },
      {
        key: "options",
        label: "answers",
        kind: "rows",
        isNeeded: true,
        one: "answer",
        fresh: { id: "", label: "" },
        fields: [
          { key: "id", label: "id", kind: "text" },
          { key: "label", label: "words", kind: "text" },
        ],
      },
      { key: "usual", label: "usual answer", kind: "text" },
    ],
  },
  { key: "house_overrides", label: "House figures it overrides", kind: "json", help: "as JSON" },
];
