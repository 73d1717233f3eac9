import type { Firing } from '../cues';
import type { Instant } from '../instant';
import type { Booking, Plan } from '../plan/schema';
import { matches, screenTerms, selectorOf } from '../selector';
import { programMaker } from './narrow';
import { firedUntil } from './segments';

/** What firing a cue brings, by a plan. */
export interface CueEffect {
  /** The ids of the screens that show something for it. */
  readonly screens: readonly string[];
  /** When the last of them returns to what it would show otherwise, in milliseconds; null if no screen shows anything. */
  readonly until: Instant | null;
}

/** The bookings that wait for a cue, and are not on hold. */
export const waitingFor = (plan: Plan, cue: string): Booking[] =>
  plan.bookings.filter((booking) => booking.cue === cue && !booking.onHold);

/** The screens whose bookings wait for a cue, of those that a selector finds; of all without one. In the plan's order. */
export function reachedBy(plan: Plan, cue: string, where?: string): string[] {
  const waiting = waitingFor(plan, cue).map((booking) => selectorOf(booking.where));
  if (waiting.length === 0) return [];
  const only = where === undefined ? null : selectorOf(where);
  const tags = new Map(plan.sites.map((site) => [site.id, site.tags]));
  return plan.screens
    .filter((screen) => {
      const terms = screenTerms(screen, tags.get(screen.site) ?? []);
      return (only === null || matches(only, terms)) && waiting.some((selector) => matches(selector, terms));
    })
    .map(({ id }) => id);
}

/**
 * On which of some screens, and until when, firings of one cue show something at an instant. A screen counts while an occurrence of the
 * cue covers it there, whether or not something else goes ahead of it.
 */
export function cueEffect(
  plan: Plan,
  cue: string,
  screens: readonly string[],
  firings: readonly Firing[],
  at: Instant,
): CueEffect {
  const programOf = programMaker(plan, firings);
  const until = new Map<object, Instant | null>();
  const lit: string[] = [];
  let last: Instant | null = null;
  for (const id of screens) {
    const program = programOf(id);
    let ends = until.get(program);
    if (ends === undefined) until.set(program, (ends = firedUntil(program, cue, at)));
    if (ends === null) continue;
    lit.push(id);
    last = Math.max(last ?? ends, ends);
  }
  return { screens: lit, until: last };
}
