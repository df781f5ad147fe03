import type { EngineProfile } from "../api/client";

/** Where something stands in a profile. */
export type Path = readonly (string | number)[];

/** As a pointer in a fault: "/steps/3/after". */
export const pointer = (path: Path): string => path.map((part) => `/${part}`).join("");

/** What stands there; nothing where the way ends before. */
export function at(root: unknown, path: Path): unknown {
  return path.reduce<unknown>((inner, part) => (inner as Record<string | number, unknown> | undefined)?.[part], root);
}

/** A copy with something else there, all else the same objects; undefined takes the key, or the row, out. */
export function setAt<T>(root: T, path: Path, value: unknown): T {
  const [part, ...rest] = path;
  if (part === undefined) return value as T;
  if (Array.isArray(root)) {
    const list = [...(root as unknown[])];
    if (rest.length === 0 && value === undefined) list.splice(Number(part), 1);
    else list[Number(part)] = setAt(list[Number(part)], rest, value);
    return list as T;
  }
  const copy = { ...((root ?? {}) as Record<string, unknown>) };
  const inner = rest.length === 0 ? value : setAt(copy[part] ?? emptyFor(rest[0]), rest, value);
  if (inner === undefined) delete copy[part];
  else copy[part] = inner;
  return copy as T;
}

const emptyFor = (part: string | number | undefined): unknown => (typeof part === "number" ? [] : {});

const FIGURES: Record<string, string[]> = { steps: ["remove", "refit"], targets: ["minutes"] };

/** The figure a path stands in: three points of a step or of work. */
export function figureAt(path: Path): { list: "steps" | "targets"; index: number; key: string } | null {
  const [list, index, key] = path;
  if (typeof list !== "string" || typeof index !== "number" || typeof key !== "string") return null;
  return FIGURES[list]?.includes(key) ? { list: list as "steps" | "targets", index, key } : null;
}

/** Where a figure comes from; learned ones, from how many jobs. */
export interface Origin {
  from: string;
  jobs?: number;
}
const TYPED: Origin = { from: "typed" };

/** Where a figure of it comes from. */
export function originOf(profile: EngineProfile, path: Path): Origin {
  const figure = figureAt(path);
  const row = figure && profile[figure.list][figure.index];
  const origins = profile.origins as Record<string, Origin> | undefined;
  return (row && origins?.[`${figure.list}:${row.id}:${figure.key}`]) || TYPED;
}

/**
 * Three points about a new likely time, while the server cannot be asked: the old ones in proportion, so that low and
 * high never stay where another figure was.
 */
export function about(points: unknown, minutes: number): [number, number, number] {
  const [low, likely, high] = Array.isArray(points) ? points.map(Number) : [];
  if (!low || !likely || !high) return [minutes, minutes, minutes];
  const scaled = (point: number) => Math.round((point / likely) * minutes * 10) / 10;
  return [Math.min(scaled(low), minutes), minutes, Math.max(scaled(high), minutes)];
}

/** An edit by hand; a figure typed over comes from whoever typed it. */
export function typed(profile: EngineProfile, path: Path, value: unknown): EngineProfile {
  const next = setAt(profile, path, value);
  const figure = figureAt(path);
  const row = figure && profile[figure.list][figure.index];
  if (!row || !profile.origins) return next;
  const bare = setAt(next, ["origins", `${figure.list}:${row.id}:${figure.key}`], undefined);
  return Object.keys(bare.origins ?? {}).length === 0 ? setAt(bare, ["origins"], undefined) : bare;
}

/** A sketch that has become an engine like any other: no longer provisional, no wider than the house has it. */
export function proper(profile: EngineProfile): EngineProfile {
  const own = setAt(setAt(profile, ["provisional"], undefined), ["house_overrides", "common_variation"], undefined);
  return Object.keys(own.house_overrides ?? {}).length === 0 ? setAt(own, ["house_overrides"], undefined) : own;
}
