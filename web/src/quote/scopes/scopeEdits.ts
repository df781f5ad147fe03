import type { Bundle, Content, Scope } from "../../api/client";
import { activeScope, inScope, toggled } from "./works";

type Work = Scope["works"][number];
export type ByHand = Pick<Scope, "hours" | "discount" | "reference">;
export const MAX_SCOPES = 3;

/**
 * What an advisor can do to a quote's scopes. Each edit takes the newest content, so that quick presses never lose
 * one.
 */
export interface ScopeEdits {
  press: (cylinder: number) => void;
  toggleAll: () => void;
  toggleWork: (work: Work) => void;
  toggleExtra: (id: string) => void;
  soak: (protocol: NonNullable<Scope["soak"]>) => void;
  pin: (pins: Scope["pins"]) => void;
  /** What this job answers for itself where practitioners disagree. */
  schools: (schools: NonNullable<Content["schools"]>) => void;
  /** The shortest way of this job, whatever the house's rule for near ties. */
  leaveTies: () => void;
  /** Whether work under our warranty is charged all the same. */
  charge: (charged: boolean) => void;
  /** What is assumed of the time to come. */
  ahead: (assumed: NonNullable<Content["ahead"]>) => void;
  /** Hours, a guide's hours and a discount set by hand; undefined takes one off again. */
  adjust: (byHand: ByHand) => void;
  /** Which plug goes in, of those the price list has for this engine. */
  plug: (part: string) => void;
  /** Other work and free parts by hand. */
  lines: (lines: NonNullable<Scope["lines"]>) => void;
  add: (bundle: Bundle) => void;
  another: () => void;
  drop: () => void;
  turn: (by: number) => void;
  goTo: (index: number) => void;
}

/** @param writes false for those who may only look: they can turn pages, nothing else */
export function scopeEdits(
  change: (next: (content: Content) => Content) => void,
  cylinders: number[],
  writes: boolean,
): ScopeEdits {
  const write = (next: (content: Content) => Content) => {
    if (writes) change(next);
  };
  const edit = (next: (scope: Scope) => Scope) => write((now) => inScope(now, next));
  const goTo = (index: number) => change((now) => ({ ...now, active: index }));
  return {
    press: (cylinder) => edit((now) => ({ ...now, cylinders: toggled(now.cylinders, cylinder) })),
    toggleAll: () => edit((now) => ({ ...now, cylinders: now.cylinders.length === cylinders.length ? [] : cylinders })),
    toggleWork: (work) => edit((now) => ({ ...now, works: toggled(now.works, work) })),
    toggleExtra: (id) => edit((now) => ({ ...now, extras: toggled(now.extras ?? [], id) })),
    soak: (protocol) => edit((now) => ({ ...now, soak: protocol })),
    pin: (pins) => edit((now) => ({ ...now, pins })),
    ahead: (assumed) => write((now) => ({ ...now, ahead: { ...now.ahead, ...assumed } })),
    schools: (schools) => write((now) => ({ ...now, schools: Object.keys(schools).length > 0 ? schools : undefined })),
    leaveTies: () => write((now) => ({ ...now, schools: { ...now.schools, near_ties: "named" } })),
    charge: (charged) => edit((now) => ({ ...now, charged: charged || undefined })),
    adjust: ({ hours, discount, reference }) => edit((now) => ({ ...now, hours, discount, reference })),
    plug: (part) => edit((now) => ({ ...now, plug: part })),
    lines: (lines) => edit((now) => ({ ...now, lines: lines.length > 0 ? lines : undefined })),
    add: (bundle) => edit((now) => withBundle(now, bundle)),
    another: () =>
      write((now) =>
        now.scopes.length < MAX_SCOPES
          ? { ...now, scopes: [...now.scopes, { ...activeScope(now), name: "" }], active: now.scopes.length }
          : now,
      ),
    drop: () =>
      write((now) =>
        now.scopes.length > 1 ? { ...now, scopes: now.scopes.filter((_, i) => i !== now.active), active: 0 } : now,
      ),
    turn: (by) => change((now) => ({ ...now, active: (now.active + by + now.scopes.length) % now.scopes.length })),
    goTo,
  };
}

/** The scope with what is nearly free added: as cylinders where it is the same work, as extras otherwise. */
export function withBundle(scope: Scope, bundle: Bundle): Scope {
  const works = bundle.works as Work[];
  const alike = works.every((work) => scope.works.includes(work)) && bundle.cylinders.length > 0;
  if (alike) return { ...scope, cylinders: [...new Set([...scope.cylinders, ...bundle.cylinders])] };
  return { ...scope, extras: [...new Set([...(scope.extras ?? []), ...bundle.targets])] };
}
