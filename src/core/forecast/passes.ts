import { drawnOnly, type Drawn } from '../plan/contents';
import type { Booking, Plan, Playlist } from '../plan/schema';
import { programMaker } from './narrow';
import { withoutProvenance, type LoopItem } from './loop';
import { screenGroups, selectedByName } from './screen-groups';

/** One turn in a pass: of a file, a layout, a bulletin or an input. */
export interface Turn extends Drawn {
  /** From the beginning of the pass, in milliseconds. */
  readonly startMs: number;
  readonly durationMs: number;
  /** The place of the playlist's own item that it comes from. */
  readonly item: number;
  /** What it is in the loop: how it looks, and when it is available. */
  readonly of: LoopItem;
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
  if (!playlist) throw new RangeError(`no playlist “${playlistId}”`);
  const alone = bookedAlone(playlist);
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
    .map(({ screens, loop }) => ({ screens, ...passOf(loop) }))
    .sort((a, b) => b.screens.length - a.screens.length);
}

/** A booking of a playlist and nothing else, everywhere and always. */
export const bookedAlone = ({ id, name }: Playlist): Booking => ({
  ...{ id: 'alone', name, where: 'all', priority: 3, when: {}, created: '2020-01-01T00:00:00Z' },
  content: { playlist: id },
});

function passOf(loop: readonly LoopItem[]): Omit<Pass, 'screens'> {
  let startMs = 0;
  const turns = loop.map((one): Turn => {
    const { durationMs, place = 0 } = one;
    const turn = { ...drawnOnly(one), startMs, durationMs, item: place, of: withoutProvenance(one) };
    startMs += durationMs;
    return turn;
  });
  return { lengthMs: startMs, turns };
}
