import { orThrow } from '../refusal';
import { readPlan, type Plan } from '../plan';

/** An entry of a plan by its id alone, or what of it is not as usual. */
type Entry = string | object;

/** What a small plan has. */
export interface Parts {
  readonly network?: object;
  readonly calendars?: readonly Entry[];
  readonly profiles?: readonly Entry[];
  readonly sites?: readonly Entry[];
  readonly screens?: readonly Entry[];
  readonly media?: readonly Entry[];
  readonly playlists?: readonly Entry[];
  readonly layouts?: readonly Entry[];
  readonly bulletins?: readonly Entry[];
  readonly cues?: readonly Entry[];
  readonly bookings?: readonly object[];
}

const CREATED = '2026-01-01T00:00:00Z';

/**
 * A plan file with what it is given, and all else as usual: names are ids, a site called "quay" with the clock of UTC, landscape screens
 * there, pictures of one pixel, layouts of 1920 × 1080 with zones at their top left, bookings of the first file on all screens. An item of a playlist that is a text is a file's id.
 */
export function smallPlanFile({
  network = {},
  calendars = [],
  profiles = [],
  sites = ['quay'],
  screens = [],
  media = [],
  playlists = [],
  layouts = [],
  bulletins = [],
  cues = [],
  bookings = [],
}: Parts): object {
  const entries = (list: readonly Entry[], usual: (entry: Record<string, unknown>) => object) =>
    list.map((one) => {
      const entry: Record<string, unknown> = typeof one === 'string' ? { id: one } : { ...one };
      return { name: entry.id, ...usual(entry), ...entry };
    });
  const idOf = (one: Entry | undefined) => (typeof one === 'object' ? (one as { id: string }).id : one);
  const document = {
    ...{ format: 'lanternpost/plan', version: 1, network: { name: 'N', ...network } },
    calendars: entries(calendars, () => ({})),
    profiles: entries(profiles, () => ({})),
    sites: entries(sites, () => ({ timeZone: 'UTC' })),
    screens: entries(screens, () => ({ site: idOf(sites[0]), width: 2, height: 1 })),
    media: entries(media, ({ kind }) => ({
      ...{ kind: 'image', bytes: 1, added: CREATED },
      ...(kind === 'sound' ? {} : { width: 1, height: 1 }),
    })),
    playlists: entries(playlists, () => ({})).map((list) => {
      const { items = [] } = list as { items?: readonly unknown[] };
      return { ...list, items: items.map((item) => (typeof item === 'string' ? { media: item } : item)) };
    }),
    layouts: entries(layouts, () => ({ width: 1920, height: 1080 })).map((layout) => ({
      ...layout,
      zones: ((layout as { zones?: readonly object[] }).zones ?? []).map((zone) => ({
        ...{ x: 0, y: 0, width: 960, height: 540, ...zone },
      })),
    })),
    bulletins: entries(bulletins, () => ({ kind: 'notice', text: 'Hello' })),
    cues: entries(cues, () => ({})),
    bookings: bookings.map((one, i) => {
      const id = (one as { id?: string }).id ?? `b${i}`;
      return { ...{ id, name: id, content: { media: idOf(media[0]) }, where: 'all', created: CREATED }, ...one };
    }),
  };
  // As it is in a file: what is undefined is not there.
  return JSON.parse(JSON.stringify(document)) as object;
}

/** The plan that `smallPlanFile` makes. Throws where it has mistakes. */
export const smallPlan = (parts: Parts): Plan => orThrow(readPlan(smallPlanFile(parts)));
