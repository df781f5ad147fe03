/** A plug, drawn: its nose inked as it reads. Nothing read, nothing inked. */
export function PlugDrawing({ condition, isOut }: { condition?: string; isOut: boolean }) {
  const dark = condition === "sooty" || condition === "wet-fuel" || condition === "wet-oil";
  const light = condition === "normal" || condition === "worn" || condition === "stained";
  const nose = dark ? "var(--ink)" : light ? "var(--depth-2)" : "var(--sheet)";
  const line = { stroke: "var(--ink)", strokeWidth: 1.3, strokeDasharray: isOut ? undefined : "2 2" };
  const wide = condition === "worn" ? 5 : 2;
  return (
    <svg viewBox="0 0 44 96" width="44" height="96" aria-hidden="true">
      <rect x="16" y="2" width="12" height="26" fill={condition === "tracked" ? "var(--depth-3)" : "none"} {...line} />
      {condition === "tracked" && <path d="M24 3V27" stroke="var(--ink)" strokeWidth="1.6" />}
      {condition === "cracked" && <path d="M17 8l10 8-9 7" stroke="var(--mark)" strokeWidth="1.6" fill="none" />}
      <rect x="10" y="28" width="24" height="14" fill="var(--depth-1)" {...line} />
      <rect x="14" y="42" width="16" height="34" fill={nose} {...line} />
      {[50, 57, 64, 71].map((y) => (
        <path key={y} d={`M14 ${y}H30`} stroke={dark ? "var(--sheet)" : "var(--ink)"} strokeWidth="0.7" />
      ))}
      <rect x="20" y="76" width="4" height={10 - wide} fill={nose} {...line} />
      <path d="M30 74V92H18" fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      {condition === "wet-oil" || condition === "oil-outside" ? (
        <path d="M6 50q3 6 0 9q-4-3 0-9" fill="var(--ink)" />
      ) : null}
      {condition === "ash" || condition === "blistered" ? (
        <g fill="var(--ink)">
          <circle cx="18" cy="80" r="1" />
          <circle cx="26" cy="82" r="1" />
          <circle cx="21" cy="72" r="1" />
        </g>
      ) : null}
    </svg>
  );
}
