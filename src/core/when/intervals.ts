import type { Instant } from '../instant';

/** The instants from `[0]` up to, not including, `[1]`. */
export type Interval = readonly [from: Instant, to: Instant];

/** Disjoint, ascending, never touching: the one written form of a set of instants. */
export type Intervals = readonly Interval[];

export const ALWAYS: Intervals = [[-Infinity, Infinity]];

export function union(intervals: readonly Interval[]): Intervals {
  const sorted = intervals.filter(([from, to]) => from < to).sort((a, b) => a[0] - b[0]);
  const merged: [Instant, Instant][] = [];
  for (const [from, to] of sorted) {
    const last = merged.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else merged.push([from, to]);
  }
  return merged;
}

export function intersect(a: Intervals, b: Intervals): Intervals {
  if (a === ALWAYS) return b;
  if (b === ALWAYS) return a;
  const both: Interval[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const [left, right] = [a[i] as Interval, b[j] as Interval];
    const [from, to] = [Math.max(left[0], right[0]), Math.min(left[1], right[1])];
    if (from < to) both.push([from, to]);
    if (left[1] < right[1]) i++;
    else j++;
  }
  return both;
}

export function subtract(a: Intervals, b: Intervals): Intervals {
  if (b.length === 0) return a;
  const gaps: Interval[] = [];
  let from = -Infinity;
  for (const [begin, end] of b) {
    gaps.push([from, begin]);
    from = end;
  }
  gaps.push([from, Infinity]);
  return intersect(
    a,
    gaps.filter((gap) => gap[0] < gap[1]),
  );
}

/** The interval that holds `instant`, or undefined. */
export function intervalAt(intervals: Intervals, instant: Instant): Interval | undefined {
  let [low, high] = [0, intervals.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((intervals[middle] as Interval)[1] <= instant) low = middle + 1;
    else high = middle;
  }
  const found = intervals[low];
  return found && found[0] <= instant ? found : undefined;
}
