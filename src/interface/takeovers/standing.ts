import { isPrepared } from '@/core/booking';
import type { Instant } from '@/core/instant';
import type { Booking, Plan } from '@/core/plan';
import { screensMatching, selectorOf } from '@/core/selector';
import type { Firing } from '@/services/editions';
import type { ScreenState, ScreenStatus } from '@/services/screens';
import { counted } from '@/interface/kit/words/format';

/** What is prepared, what is in force, and what firing would do: pure. */

/** Whether it is in force at an instant: neither cleared nor over by itself. */
export const isInForce = ({ clearedAt, until }: Firing, now: Instant): boolean =>
  clearedAt === null && (until === null || Date.parse(until) > now);

/** Takeovers that can be fired: those on hold, and those that ended by themselves without an all-clear. By their names. */
export function prepared(plan: Plan, firings: readonly Firing[], now: Instant): Booking[] {
  const last = new Map<string, Firing>();
  for (const one of firings) if (!last.has(one.booking)) last.set(one.booking, one);
  const ended = ({ id, takeover, drill }: Booking) => {
    const firing = last.get(id);
    return takeover === true && !drill && firing?.clearedAt === null && !isInForce(firing, now);
  };
  return plan.bookings
    .filter((booking) => isPrepared(booking) || ended(booking))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Whom firing reaches, in numbers. */
export interface FiringReach {
  readonly screens: number;
  readonly sites: number;
  /** Online: they show it within seconds. */
  readonly heard: number;
  /** Dark: they show it when they are back. */
  readonly dark: number;
  readonly unpaired: number;
}

export function reachOf(plan: Plan, where: string, statuses: ReadonlyMap<string, ScreenStatus>): FiringReach {
  const screens = screensMatching(plan, selectorOf(where));
  const count = (...states: ScreenState[]) =>
    screens.filter(({ id }) => states.includes(statuses.get(id)?.state ?? 'unpaired')).length;
  return {
    screens: screens.length,
    sites: new Set(screens.map(({ site }) => site)).size,
    heard: count('lit', 'behind', 'resting'),
    dark: count('dark'),
    unpaired: count('unpaired'),
  };
}

/** What will happen, in numbers: on how many screens, and which of them not at once. */
export function reachSentences(
  { screens, sites, heard, dark, unpaired }: FiringReach,
  wakes: boolean,
  resting: number,
): string[] {
  const at = `${counted(screens, 'screen')} at ${counted(sites, 'site')}`;
  return [
    heard === screens
      ? `${at}: all are online and show it within seconds.`
      : `${at}: ${heard} ${heard === 1 ? 'is' : 'are'} online and ${heard === 1 ? 'shows' : 'show'} it within seconds.`,
    ...(resting > 0 && !wakes
      ? [
          `${counted(resting, 'screen')} in lights-out hours ${resting === 1 ? 'stays' : 'stay'} dark: it does not wake displays.`,
        ]
      : []),
    ...(dark > 0
      ? [
          `${dark} offline: ${dark === 1 ? 'it shows' : 'they show'} it when ${dark === 1 ? 'it is' : 'they are'} back, if it is still in force.`,
        ]
      : []),
    ...(unpaired > 0 ? [`${unpaired} without a player.`] : []),
  ];
}
