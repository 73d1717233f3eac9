import { ascending, rollup, sum } from 'd3-array';
import type { Change } from '@/core/forecast';
import type { Instant } from '@/core/instant';
import type { Planned } from '@/services/editions';

/** From when on which screens show an edition that waits, and what that means for the changes of a range: pure. */

/** From an instant on, an edition that waits is on some screens. */
export interface SwitchStep {
  readonly id: string;
  readonly at: Instant;
  /** Null for all screens. */
  readonly screens: ReadonlySet<string> | null;
}

/** What happens to screens by what waits, in order: a time at each site in as many steps as there are instants, a pilot in one. */
export function stepsOf(planned: readonly Planned[]): SwitchStep[] {
  return planned.flatMap(({ id, at, steps }): SwitchStep[] => {
    const own = steps.map((step) => ({ id, at: Date.parse(step.at), screens: new Set(step.screens) }));
    if (at === null) return own;
    // The last is for all: those too that the edition does not name.
    const last = Date.parse(at);
    return [...own.filter((step) => step.at < last), { id, at: last, screens: null }];
  });
}

/** The last of some steps that is for a screen. */
export const lastFor = <S extends SwitchStep>(steps: readonly S[], screen: string): S | undefined =>
  steps.findLast(({ screens }) => screens === null || screens.has(screen));

/** Screens that the same steps are for. */
export interface Together<S extends SwitchStep> {
  /** Null where these are all that are asked for. */
  readonly screens: readonly string[] | null;
  readonly steps: readonly S[];
}

/** Some screens in groups that the same steps are for; one group, and null, where all steps are for all screens. */
export function together<S extends SwitchStep>(steps: readonly S[], screens: readonly string[]): Together<S>[] {
  if (steps.every((step) => step.screens === null)) return [{ screens: null, steps }];
  const groups = rollup(
    screens,
    (list) => list,
    (screen) => steps.map((step) => (step.screens === null || step.screens.has(screen) ? '1' : '0')).join(''),
  );
  return [...groups].map(([mine, list]) => ({ screens: list, steps: steps.filter((_, i) => mine[i] === '1') }));
}

/** Changes of several groups of screens as one list, in order of time. */
export function joined(lists: readonly (readonly Change[])[]): readonly Change[] {
  const [only] = lists;
  if (lists.length === 1 && only) return only;
  const at = rollup(
    lists.flat(),
    (list) => ({ screens: sum(list, (one) => one.screens), takeover: list.some((one) => one.takeover) }),
    (one) => one.at,
  );
  return [...at].map(([instant, change]) => ({ at: instant, ...change })).sort((a, b) => ascending(a.at, b.at));
}
