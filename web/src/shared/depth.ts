/** The ink of a depth: layer by layer to six, scaled to six where a job is deeper. Surface is 1. */
export function depthInk(depth: number, deepest: number): string {
  const step = deepest <= 6 ? depth : 1 + Math.floor(((depth - 1) / Math.max(deepest - 1, 1)) * 5);
  return `var(--depth-${Math.max(1, Math.min(6, step))})`;
}
