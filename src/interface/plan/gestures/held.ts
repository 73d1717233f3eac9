import { DAY } from '@/core/instant';
import { MOST_DAYS, type LocalTime } from '@/core/when';
import type { Bar, Layer } from '../strata/layout';

/** What is being dragged: a bar, or a new one that is being drawn. */
export interface Held {
  readonly bar: Bar | null;
  readonly start: LocalTime;
  readonly end: LocalTime;
  readonly layer: Layer;
  /** Whether it is put down as a copy. */
  readonly copy: boolean;
}

const SHORTEST = 60_000;
const LONGEST = MOST_DAYS * DAY;

/** A held bar with its whole, its start or its end at another time; never empty, at most as long as a window can be. */
export function stretched(held: Held, part: 'whole' | 'start' | 'end', to: LocalTime): Held {
  const { start, end } = held;
  if (part === 'whole') return { ...held, start: to, end: (to + end - start) as LocalTime };
  if (part === 'start') return { ...held, start: Math.min(Math.max(to, end - LONGEST), end - SHORTEST) as LocalTime };
  return { ...held, end: Math.max(Math.min(to, start + LONGEST), start + SHORTEST) as LocalTime };
}
