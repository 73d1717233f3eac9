import type { Screen } from '@/core/plan';
import type { ScreenStatus } from '@/services/screens';
import { counted } from '@/interface/kit/words/format';

/**
 * Why a screen is dark, as far as it is known: when its player was last seen, how it was then, how the others at its site are, and what it does
 * until it reconnects. `since` is when it was last seen, in words.
 */
export function darkWords(
  screen: Screen,
  site: string,
  screens: readonly Screen[],
  statuses: ReadonlyMap<string, ScreenStatus>,
  since: string | null,
): string[] {
  const own = statuses.get(screen.id);
  if (own?.state !== 'dark') return [];
  // Which displays of a wall are dark is said by name.
  if (own.parts?.some(({ state }) => state !== 'dark')) return [];
  if (since === null) return ['Its player was paired, but never connected. Check that it is switched on and online.'];
  return [
    `Its player is offline. It was last seen on ${since}.${WAS[own.wasLast ?? 'unknown']}`,
    ...othersWords(screen, site, screens, statuses),
    'If it still has power, it goes on showing what it has stored. It updates when it reconnects.',
  ];
}

const WAS = {
  lit: ' Then everything was up to date.',
  resting: ' Then it was up to date, in its lights-out hours.',
  behind: ' Then it did not have all of the newest edition yet.',
  unknown: '',
} as const;

function othersWords(
  { id, site: siteId }: Screen,
  site: string,
  screens: readonly Screen[],
  statuses: ReadonlyMap<string, ScreenStatus>,
): string[] {
  const states = screens
    .filter((one) => one.site === siteId && one.id !== id)
    .map((one) => statuses.get(one.id)?.state ?? 'unpaired')
    .filter((state) => state !== 'unpaired');
  if (states.length === 0) return [];
  const dark = states.filter((state) => state === 'dark').length;
  const others = `${counted(states.length, 'other screen')} at ${site}`;
  if (dark === states.length)
    return [
      `${states.length === 1 ? `The only ${others.slice(2)} is` : `All ${others} are`} dark too: the site may have no power or no connection.`,
    ];
  const heard = states.length - dark;
  return [
    heard === states.length
      ? `${states.length === 1 ? `The ${others.slice(2)} is` : `All ${others} are`} online: look at this player, its power and its cable.`
      : `Of ${others}, ${heard} ${heard === 1 ? 'is' : 'are'} online and ${dark} dark too.`,
  ];
}
