import type { Booking, Plan } from '../plan/schema';
import { itemFiles } from './durations';
import { programMaker, type LoopItem } from './program';
import { screenGroups, selectedByName } from './screen-groups';

/** One file's turn in a pass. */
export interface Turn {
  readonly media: string;
  /** From the beginning of the pass, in milliseconds. */
  readonly startMs: number;
  readonly durationMs: number;
  /** The place of the playlist's own item that it comes from. */
  readonly item: number;
}

/** A pass of a playlist as some screens see it: all that may show on them, in order, whenever it is available. */
export interface Pass {
  /** Ids of the screens that see it so. */
  readonly screens: readonly string[];
  readonly lengthMs: number;
  readonly turns: readonly Turn[];
}

/**
 * The passes of a playlist, those that most screens see first; screens on which nothing of it may show see none. Throws RangeError for
 * an unknown playlist.
 */
export function passesOf(plan: Plan, playlistId: string): Pass[] {
  const playlist = plan.playlists.find(({ id }) => id === playlistId);
  if (!playlist) throw new RangeError(`no playlist "${playlistId}"`);
  const alone: Booking = {
    ...{ id: 'passes', name: playlist.name, where: 'all', priority: 3, when: {}, created: '2020-01-01T00:00:00Z' },
    content: { playlist: playlistId },
  };
  const narrowed = { ...plan, bookings: [alone] };
  const make = programMaker(narrowed);
  const [, keyOf] = screenGroups(narrowed, new Set(selectedByName(narrowed)));
  const kinds = new Map<string, string[]>();
  for (const { id } of plan.screens) {
    const key = keyOf.get(id) ?? id;
    kinds.set(key, [...(kinds.get(key) ?? []), id]);
  }
  const passes = new Map<string, { screens: string[]; loop: readonly LoopItem[] }>();
  for (const screens of kinds.values()) {
    const { bookings, loops } = make(screens[0] ?? '', [alone]);
    const loop = loops[bookings[0]?.loop ?? -1] ?? [];
    if (loop.length === 0) continue;
    const key = JSON.stringify(loop);
    const known = passes.get(key);
    if (known) known.screens.push(...screens);
    else passes.set(key, { screens: [...screens], loop });
  }
  return [...passes.values()]
    .map(({ screens, loop }) => ({ screens, ...passOf(plan, playlist.items, loop) }))
    .sort((a, b) => b.screens.length - a.screens.length);
}

function passOf(
  plan: Plan,
  items: Plan['playlists'][number]['items'],
  loop: readonly LoopItem[],
): Omit<Pass, 'screens'> {
  const files = items.map((item) => new Set(itemFiles(plan, item).map(({ id }) => id)));
  /** Whether an item can have yielded this. */
  const yields = (place: number, { media, through = [] }: LoopItem) =>
    through.length > 1 ? items[place]?.playlist === through[1] : files[place]?.has(media) === true;
  let startMs = 0;
  let at = 0;
  const turns = loop.map((one): Turn => {
    // Items follow on each other: looked for from where the one before was, then from the beginning.
    const places = [...items.keys()];
    const found = [...places.slice(at), ...places.slice(0, at)].find((place) => yields(place, one)) ?? at;
    // A file that is an item by itself has one turn: the same again is the next such item.
    at = items[found]?.media === undefined ? found : found + 1;
    const turn = { media: one.media, startMs, durationMs: one.durationMs, item: found };
    startMs += one.durationMs;
    return turn;
  });
  return { lengthMs: startMs, turns };
}
