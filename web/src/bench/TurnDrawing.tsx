const R = 52;
const C = 64;

/** A turn after finger-tight, on a clock face: from twelve on, as far as it may go. */
export function TurnDrawing({ turns, label }: { turns: [number, number]; label: string }) {
  const [low, high] = turns;
  return (
    <svg viewBox="0 0 128 128" width="150" height="150" role="img" aria-label={label}>
      <circle cx={C} cy={C} r={R} fill="var(--sheet)" stroke="var(--strong)" strokeWidth="1.4" />
      {Array.from({ length: 12 }, (_, i) => (
        <path key={i} d={`M${at(i / 12, R - 6)}L${at(i / 12, R)}`} stroke="var(--second)" />
      ))}
      <path d={`M${C} ${C}L${at(0, R)}${arc(0, low)}Z`} fill="var(--depth-3)" />
      {high > low && <path d={`M${C} ${C}L${at(low, R)}${arc(low, high)}Z`} fill="var(--depth-1)" stroke="none" />}
      <path d={`M${C} ${C}L${at(0, R)}`} stroke="var(--ink)" strokeWidth="1.4" />
      <path d={`M${C} ${C}L${at(high, R)}`} stroke="var(--mark)" strokeWidth="3" />
      {high > low && (
        <path d={`M${C} ${C}L${at(low, R)}`} stroke="var(--mark)" strokeWidth="1.6" strokeDasharray="3 3" />
      )}
      <circle cx={C} cy={C} r="3" fill="var(--ink)" />
    </svg>
  );
}

/** A point of the face, by turns from twelve. */
function at(turn: number, radius: number): string {
  const angle = turn * 2 * Math.PI;
  return `${(C + radius * Math.sin(angle)).toFixed(2)} ${(C - radius * Math.cos(angle)).toFixed(2)}`;
}

const arc = (from: number, to: number) => `A${R} ${R} 0 ${to - from > 0.5 ? 1 : 0} 1 ${at(to, R)}`;
