/** What the one panel beside the drawing shows; "beside" puts the scopes side by side in place of the drawings. */
export type Panel = "layers" | "trouble" | "routes" | "parts" | "beside";

/** Panels whose figures are computed only while they are looked at. */
export const ON_DEMAND: Panel[] = ["trouble", "beside"];

/** The panels in the order they stand, with the key of each and what the key list calls it. */
export const PANELS: { name: Exclude<Panel, "beside">; label: string; key: string; told: string }[] = [
  { name: "layers", label: "Layers", key: "y", told: "Panel: layers" },
  { name: "routes", label: "Routes", key: "x", told: "Panel: routes, and what another would take" },
  { name: "parts", label: "Parts", key: "q", told: "Panel: parts, ordered and at hand" },
  { name: "trouble", label: "Trouble", key: "f", told: "Panel: trouble, and what a soak does" },
];
