import type { SetOfHours, When } from './schema';
import { NAMED_EDGE, type NamedEdge } from './written';

/** The types that a `When` is made of. Without schemas, because players use this file and must stay small. */

/** The sets of hours of which a `When` is made: at least one. */
export function setsOf(when: When): readonly SetOfHours[] {
  return when.any ?? [when];
}

/** A `When` of sets of hours, in its one written form: a single set stands alone. Throws a RangeError where there is none. */
export function whenOfSets(sets: readonly SetOfHours[]): When {
  const [first, ...more] = sets;
  if (!first) throw new RangeError('a When has at least one set of hours');
  return more.length === 0 ? first : { any: [...sets] };
}

/** The same `When` with another set of hours in place of one; null takes it out. Null where none is left. */
export function withSet(when: When, index: number, set: SetOfHours | null): When | null {
  const sets = setsOf(when).flatMap((one, i) => (i !== index ? [one] : set ? [set] : []));
  return sets.length === 0 ? null : whenOfSets(sets);
}

/** The calendars that a `When` names. */
export const calendarsOf = (when: When): string[] =>
  setsOf(when).flatMap(({ only, not }) => [...(only ?? []), ...(not ?? [])]);

/** The time zones that a `When` is pinned to. */
export const clocksOf = (when: When): string[] =>
  setsOf(when).flatMap(({ clock }) => (clock && clock !== 'site' ? [clock] : []));

/** Whether any of its windows follows a site's opening hours. */
export const followsHours = (when: When): boolean => anyWindow(when, ['opens', 'closes']);

/** Whether any of its windows follows the sun over a site. */
export const followsSun = (when: When): boolean => anyWindow(when, ['sunrise', 'sunset']);

const anyWindow = (when: When, names: readonly NamedEdge[]) =>
  setsOf(when).some(({ windows = [] }) =>
    windows.some(([start, end]) =>
      [start, end].some((edge) => names.includes(NAMED_EDGE.exec(edge)?.[1] as NamedEdge)),
    ),
  );
