import { DAY, HOUR, SECOND, type Instant } from '../instant';
import type { State } from './health';

/** What is known of a screen besides its plan, for finding those that need attention. */
export interface Facts {
  readonly state: State;
  /** Plain sentences for what is wrong. */
  readonly troubles: readonly string[];
  /** Since when it is in its state; null where that isn't known. */
  readonly since: Instant | null;
  /** When it was last online; null for never. */
  readonly lastSeen: Instant | null;
  /** Whether it was dark around this time yesterday. */
  readonly wasDarkYesterday: boolean;
  /** How far its own clock is from the server's, in milliseconds; null where its player doesn't tell. */
  readonly clockMs: number | null;
  /** Share of its storage that is free, 0 to 1; null where its player doesn't tell. */
  readonly freeStorage: number | null;
}

const CLOCK_OFF_MS = 30 * SECOND;
const LITTLE_STORAGE = 0.1;

const table = <K extends string>(problems: Record<K, { name: string; is: (facts: Facts, now: Instant) => boolean }>) =>
  problems;

/** The problems by which screens are found. */
export const PROBLEMS = table({
  trouble: { name: 'Any trouble', is: ({ troubles }) => troubles.length > 0 },
  dark: { name: 'Dark now', is: ({ state }) => state === 'dark' },
  'dark-yesterday': { name: 'Dark at this hour yesterday', is: ({ wasDarkYesterday }) => wasDarkYesterday },
  behind: {
    name: 'Behind for over an hour',
    is: ({ state, since }, now) => state === 'behind' && since !== null && now - since > HOUR,
  },
  clock: { name: 'Clock off', is: ({ clockMs }) => clockMs !== null && Math.abs(clockMs) > CLOCK_OFF_MS },
  storage: {
    name: 'Storage under 10 % free',
    is: ({ freeStorage }) => freeStorage !== null && freeStorage < LITTLE_STORAGE,
  },
  unseen: {
    name: 'Not seen for 7 days',
    is: ({ state, lastSeen }, now) => state === 'dark' && (lastSeen === null || now - lastSeen > 7 * DAY),
  },
});
export type Problem = keyof typeof PROBLEMS;
export const ALL_PROBLEMS = Object.keys(PROBLEMS) as Problem[];
