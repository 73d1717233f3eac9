import { formatDate, parseDate } from '../dates';
import { datesOf } from '../occurrences';
import { parseRule } from '../rule';
import type { SetOfHours } from '../schema';
import { parseClock } from '../written';
import { weeklyDays, weeklyRule } from '../words';

/**
 * Sets of hours that were said one after the other: where a later one has days of an earlier one at other hours that overlap, it is meant in its
 * place: "daily 6–22, Sundays 8–20" is not on from 6 to 8 on Sundays. `way` is asked which of so many ways is meant: 1 keeps both.
 */
export function instead(sets: readonly SetOfHours[], way: (count: number) => number): SetOfHours[] {
  const found = sets.map((set, i) => sets.slice(i + 1).reduce((left, later) => without(left, later), set));
  const isNone = found.every((set, i) => set === sets[i]);
  return isNone || way(2) === 1 ? [...sets] : found;
}

function without(set: SetOfHours, later: SetOfHours): SetOfHours {
  if (!overlaps(set, later) || set.clock !== later.clock) return set;
  if (later.repeat === undefined && !later.only && !later.also) return withoutDates(set, later);
  // "daily 6–22 until 31 Jan and Sundays 8–20 until 20 Dec": Sundays in January are said by the first.
  const limits = ({ from, to, not, except, also }: SetOfHours) => JSON.stringify([from, to, not, except, also]);
  if (limits(set) !== limits(later)) return set;
  const [only] = later.only ?? [];
  if (only !== undefined && later.only?.length === 1 && later.repeat === undefined && set.only === undefined)
    return { ...set, not: [...new Set([...(set.not ?? []), only])] };
  if (later.only) return set;
  const [days, theirs] = [weekdaysOf(set), weekdaysOf(later)];
  if (!days || !theirs) return set;
  const left = days.filter((day) => !theirs.includes(day));
  // The same days at other hours are said to be on at both.
  if (left.length === days.length || left.length === 0) return set;
  return { ...set, repeat: weeklyRule(left) };
}

const LONGEST_RANGE = 60;

function withoutDates(set: SetOfHours, { from, to }: SetOfHours): SetOfHours {
  const [first, last] = [from, to].map((text) => (text === undefined ? null : parseDate(text)));
  if (first == null || last == null || last - first > LONGEST_RANGE) return set;
  // Which of them a calendar keeps away does not matter.
  const { only: _only, not: _not, ...plain } = set;
  const dates = datesOf(plain, { calendar: () => new Set() }, first, last).map(formatDate);
  return dates.length === 0 ? set : { ...set, except: [...new Set([...(set.except ?? []), ...dates])].sort() };
}

/** The days of the week of plain weekly hours, 0 Monday; null where they come by another rule. */
function weekdaysOf({ repeat }: SetOfHours): number[] | null {
  if (repeat === undefined) return [0, 1, 2, 3, 4, 5, 6];
  const rule = parseRule(repeat);
  return rule.ok && rule.value.interval === 1 ? weeklyDays(rule.value) : null;
}

/** Whether two sets of hours share a time of day, and are not the same: what follows opening hours may be at any time. */
function overlaps(a: SetOfHours, b: SetOfHours): boolean {
  const [ours, theirs] = [a, b].map(({ windows = [['00:00', '24:00']] }) => windows) as [
    NonNullable<SetOfHours['windows']>,
    NonNullable<SetOfHours['windows']>,
  ];
  if (JSON.stringify(ours) === JSON.stringify(theirs)) return false;
  if ([...ours, ...theirs].some(([, , days]) => days !== undefined)) return false;
  const span = ([start, end]: readonly [string, string, number?]): [number, number] => {
    const begin = parseClock(start) ?? 0;
    const finish = parseClock(end) ?? Infinity;
    return [begin, finish > begin ? finish : Infinity];
  };
  return ours.some((one) => theirs.some((other) => span(one)[0] < span(other)[1] && span(other)[0] < span(one)[1]));
}
