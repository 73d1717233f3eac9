import type { Instant } from '../instant';
import type { Plan, When } from '../plan/schema';
import { instantsOf, intersect, type Intervals } from '../when';
import { placeOf } from './program';
import { screenProgram } from './narrow';
import { lightsOutInstants } from './segments';

/** What lights-out hours come to at one site. */
export interface DarkHours {
  readonly site: string;
  /** How long its displays are off, in milliseconds. */
  readonly darkMs: number;
  /** How long the site is open; 0 if it has no opening hours. */
  readonly openMs: number;
  /** For how long the displays are off while the site is open. */
  readonly darkWhileOpenMs: number;
  /** The first time that they are off; null if they never are. */
  readonly first: readonly [Instant, Instant] | null;
}

/**
 * What lights-out hours would come to in `[from, to)` on some screens: for each of their sites once, the one with the most hours off
 * while it is open first. Unknown screens are left out.
 */
export function darkHours(
  plan: Plan,
  screens: readonly string[],
  lightsOut: readonly When[],
  from: Instant,
  to: Instant,
): DarkHours[] {
  const meant = plan.screens.filter(({ id }) => screens.includes(id));
  const oneOfEachSite = new Map(meant.map(({ id, site }) => [site, id]));
  // Neither bookings nor files say when a display is off.
  const bare: Plan = {
    ...{ ...plan, bookings: [], playlists: [], media: [], network: { name: plan.network.name } },
    sites: plan.sites.map((site) => ({ ...site, backdrop: undefined })),
    screens: meant.map((screen) => ({ ...screen, backdrop: undefined, lightsOut: [...lightsOut] })),
  };
  return [...oneOfEachSite]
    .map(([site, screen]): DarkHours => {
      const program = screenProgram(bare, screen);
      const place = placeOf(program);
      const { hours } = plan.sites.find(({ id }) => id === site) ?? {};
      const dark = intersect(lightsOutInstants(program, place, from, to), [[from, to]]);
      const open = hours
        ? intersect(instantsOf({ windows: [['opens', 'closes']] }, { ...place, hours }, from, to), [[from, to]])
        : [];
      const [first] = dark;
      return {
        ...{ site, darkMs: length(dark), openMs: length(open), darkWhileOpenMs: length(intersect(open, dark)) },
        first: first ?? null,
      };
    })
    .sort((a, b) => b.darkWhileOpenMs - a.darkWhileOpenMs || (a.site < b.site ? -1 : 1));
}

const length = (set: Intervals) => set.reduce((sum, [begin, end]) => sum + end - begin, 0);
