import { MINUTE, type Instant } from '@/core/instant';
import type { Verdict } from '../editions';
import { stateOf, type Heard } from './status';

/** What becomes of an edition that is tried on some screens first, by what their players told last: pure. */

/** How long a pilot screen has to show the edition, from when it was offered. */
export const TAKES_UP_WITHIN_MS = 15 * MINUTE;

/** A screen on which it is tried. */
export interface PilotScreen extends Heard {
  readonly name: string;
  /** The program that it gets by it. */
  readonly target: string;
  /** When its player was first heard to play that. */
  readonly reachedAt: Date | null;
}

/** How it is tried; instants in ISO 8601. */
export interface Trial {
  /** Since when, and since when as it is now. */
  readonly begun: string;
  readonly given: string;
  /** For how many minutes all have to be lit; null waits for a person. */
  readonly minutes: number | null;
  /** When it goes out if the minutes are over by then; null for as soon as they are. */
  readonly at?: string | null;
  /** Whether the minutes are over and only that time is still to come. */
  readonly passed: boolean;
  /** Since when all of them are lit. */
  readonly litSince: string | null;
}

/**
 * Screens without a player are left out; a screen resting by its lights-out hours counts as lit. A screen that is dark or late counts
 * against the pilot only after the network has been online for a while (`heard`): a server that was down has heard from no screen. A pilot that
 * passed is watched until its time: an error, or a screen that goes dark, still stops it.
 */
export function verdictOf(
  { begun, given, minutes, at = null, passed, litSince }: Trial,
  screens: readonly PilotScreen[],
  heard: boolean,
  now: Instant,
): Verdict {
  const since = Date.parse(begun);
  const tried = screens.filter(({ player }) => player !== null);
  if (tried.length === 0) return { kind: 'stop', why: 'None of its screens has a player now.' };
  const states = tried.map((one) => stateOf({ ...one, paired: true, now }));
  for (const [i, { name, report, reachedAt }] of tried.entries()) {
    const error = report?.errors.find(({ at }) => at >= since);
    if (error) return { kind: 'stop', why: `${name}: ${error.message}` };
    if (heard && reachedAt && states[i] === 'dark') return { kind: 'stop', why: `${name} went dark with it.` };
    if (heard && !reachedAt && now - Date.parse(given) > TAKES_UP_WITHIN_MS)
      return { kind: 'stop', why: `${name} didn’t update within ${TAKES_UP_WITHIN_MS / MINUTE} minutes.` };
  }
  if (passed) return { kind: 'wait', litSince };
  const allLit = states.every((state) => state === 'lit' || state === 'resting');
  // The server's clock was put back, so the time they have been lit is counted from now.
  const from = !allLit ? null : litSince === null || Date.parse(litSince) > now ? now : Date.parse(litSince);
  const over = from === null || minutes === null ? null : from + minutes * MINUTE;
  if (at !== null && (over ?? Infinity) > Date.parse(at) && heard && now >= Date.parse(at))
    return { kind: 'stop', why: `Its time came before all had been lit for ${minutes} minutes.` };
  const lit = from === null ? null : new Date(from).toISOString();
  if (lit === null || over === null || now < over) return { kind: 'wait', litSince: lit };
  return at === null || now >= Date.parse(at) ? { kind: 'publish' } : { kind: 'pass', litSince: lit };
}
