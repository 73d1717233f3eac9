import type { Instant } from '@/core/instant';
import type { Arrival } from '@/services/editions';
import type { ScreenStatus } from '@/services/screens';
import { counted } from '@/interface/kit/words/format';

/** Whether a screen plays what the newest edition gives it. */
export const isReached = ({ state }: ScreenStatus): boolean => state === 'lit' || state === 'resting';

/** The ids of those that do. */
export const reachedOf = (statuses: ReadonlyMap<string, ScreenStatus>): ReadonlySet<string> =>
  new Set([...statuses].flatMap(([id, status]) => (isReached(status) ? [id] : [])));

/** How many screens an edition had reached from `at` on, in milliseconds since it went out. */
export interface ArrivalStep {
  readonly at: number;
  readonly count: number;
}

/** The steps by which an edition arrived, the first first. */
export function stepsOf(arrivals: readonly Arrival[], out: Instant): ArrivalStep[] {
  const times = arrivals.flatMap(({ at }) => (at === null ? [] : Math.max(0, Date.parse(at) - out)));
  return times.sort((a, b) => a - b).map((at, i) => ({ at, count: i + 1 }));
}

/** "1.2 s", "40 s", "3 min", "5 h", "2 days". */
export function spanWords(ms: number): string {
  const [seconds, minutes, hours] = [ms / 1000, ms / 60_000, ms / 3_600_000];
  if (seconds < 10) return `${seconds.toFixed(1)} s`;
  if (seconds < 120) return `${Math.round(seconds)} s`;
  if (minutes < 120) return `${Math.round(minutes)} min`;
  return hours < 48 ? `${Math.round(hours)} h` : counted(Math.round(hours / 24), 'day');
}

/** How far an edition came, in a sentence. */
export function arrivalWords(steps: readonly ArrivalStep[], of: number): string {
  const last = steps.at(-1);
  if (of === 0) return 'It changed nothing on any screen.';
  if (!last)
    return of === 1
      ? 'The screen that it changes hasn’t updated yet.'
      : `None of the ${counted(of, 'screen')} that it changes has updated yet.`;
  if (of === 1) return `The screen that it changed was updated after ${spanWords(last.at)}.`;
  const half = steps[Math.ceil(of / 2) - 1];
  const times = [
    ...(half && half.at < last.at ? [`half of them within ${spanWords(half.at)}`] : []),
    `the last after ${spanWords(last.at)}`,
  ].join(', ');
  return last.count === of
    ? `All ${counted(of, 'screen')} that it changed were updated: ${times}.`
    : `Of the ${counted(of, 'screen')} that it changes, ${last.count} ${last.count === 1 ? 'was' : 'were'} updated so far: ${times}.`;
}

/** Marks on the way that take ever longer, up to `end`, in milliseconds. */
export const MARKS = [
  [1000, '1 s'],
  [10_000, '10 s'],
  [60_000, '1 min'],
  [600_000, '10 min'],
  [3_600_000, '1 h'],
  [36_000_000, '10 h'],
  [259_200_000, '3 days'],
  [2_592_000_000, '30 days'],
] as const satisfies readonly (readonly [number, string])[];
