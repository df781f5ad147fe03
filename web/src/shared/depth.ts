/** The ink of a depth: layer by layer to six, scaled to six where a job is deeper. Surface is 1. */
export function depthInk(depth: number, deepest: number): string {
  return `var(--depth-${step(depth, deepest)})`;
}

/** What can be read on it, by day and by night. */
export function onDepth(depth: number, deepest: number): string {
  return `var(--on-depth-${step(depth, deepest)}, var(--ink))`;
}

function step(depth: number, deepest: number): number {
  const found = deepest <= 6 ? depth : 1 + Math.floor(((depth - 1) / Math.max(deepest - 1, 1)) * 5);
  return Math.max(1, Math.min(6, found));
}
