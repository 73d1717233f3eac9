import { diffPlans } from '../edition/diff';
import { touchedScreens } from '../edition/touched';
import type { Instant } from '../instant';
import { withPatches, type Plan } from '../plan';
import { subtract, union } from '../when';
import type { Finding } from './findings';
import type { Fix } from './fixes';

/** What a fix changes besides what it is for: on how many screens, and for how long on the one where that is longest, in milliseconds. */
export interface Besides {
  readonly screens: number;
  readonly longestMs: number;
}

/**
 * What each fix of a finding changes of what shows in `[from, to)`, other than in the times and on the screens that the finding is about. In
 * the order of `fixes`.
 */
export function besidesOf(
  plan: Plan,
  { screens, times }: Pick<Finding, 'screens' | 'times'>,
  fixes: readonly Pick<Fix, 'edits'>[],
  from: Instant,
  to: Instant,
): Besides[] {
  const meant = new Set(screens);
  return fixes.map(({ edits }) => {
    const after = withPatches(plan, edits);
    let count = 0;
    let longestMs = 0;
    for (const group of diffPlans(plan, after, from, to, touchedScreens(plan, after))) {
      const whole = union(group.differences.map((one) => [one.from, one.to] as const));
      const length = (intervals: typeof whole) => intervals.reduce((sum, [begin, end]) => sum + end - begin, 0);
      for (const screen of group.screens) {
        const besides = length(meant.has(screen) ? subtract(whole, times) : whole);
        if (besides > 0) count++;
        longestMs = Math.max(longestMs, besides);
      }
    }
    return { screens: count, longestMs };
  });
}
