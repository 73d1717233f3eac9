import { itemFiles } from '../forecast';
import {
  NETWORK_ID,
  changed,
  patchOf,
  removed,
  type Booking,
  type Content,
  type Patch,
  type Plan,
  type Playlist,
  type Screen,
} from '../plan';
import { isAlways, setsOf, whenOfSets, type WrittenWindow } from '../when';

/** A change that ends a finding, ready to be made. */
export interface Fix {
  /** What it does, as a button says it. */
  readonly label: string;
  readonly edits: readonly Patch[];
}

const booked = (booking: Booking, change: Partial<Booking>): Patch[] => changed('booking', booking, change);

export const remove = (booking: Booking): Fix => ({
  label: `Delete “${booking.name}”`,
  edits: [removed('booking', booking)],
});

export const putOnHold = (booking: Booking): Fix => ({
  label: `Put “${booking.name}” on hold`,
  edits: booked(booking, { onHold: true }),
});

/** Puts one booking ahead of another of its kind: by raising it, or if it is at the top already, by lowering the other. */
export function letWin(winner: Booking, loser: Booking): Fix {
  const label = `“${winner.name}” ahead of “${loser.name}”`;
  if (loser.priority < 5) return { label, edits: booked(winner, { priority: loser.priority + 1 }) };
  if (winner.priority === 5) return { label, edits: booked(loser, { priority: 4 }) };
  return { label, edits: [...booked(winner, { priority: 5 }), ...booked(loser, { priority: 4 })] };
}

const MOST_NAMED = 12;

/** Takes screens out of where a booking shows, as `label` says it; none where they are too many to name. */
export function leaveOut(
  booking: Booking,
  screens: readonly string[],
  label = screens.length > 1 ? 'Leave these screens out' : 'Leave this screen out',
): Fix[] {
  if (screens.length > MOST_NAMED) return [];
  const named = screens.map((id) => `screen:${id}`).join(' or ');
  const where = `(${booking.where}) and not ${screens.length > 1 ? `(${named})` : named}`;
  return [{ label, edits: booked(booking, { where }) }];
}

/** Exchanges beginning and end of a screen's lights-out hours. */
export function exchangeLightsOut(screens: readonly Screen[]): Fix {
  const edge = (text: string) => (text === '24:00' ? '00:00' : text);
  return {
    label: 'Swap on and off',
    edits: screens.flatMap((screen): Patch[] =>
      changed('screen', screen, {
        lightsOut: (screen.lightsOut ?? []).map((when) =>
          whenOfSets(
            setsOf(when).map((set) => ({
              ...set,
              windows: (set.windows ?? []).map(([start, end, ...days]): WrittenWindow => [
                edge(end),
                edge(start),
                ...days,
              ]),
            })),
          ),
        ),
      }),
    ),
  };
}

/** Moves a file to the front of the playlist that a booking shows; none where the file is not an item of it itself. */
export function toFront(plan: Plan, booking: Booking, media: string): Fix[] {
  const list = plan.playlists.find((one) => one.id === booking.content.playlist);
  const item = list?.items.find((one) => one.media === media);
  if (!list || !item) return [];
  const items = [item, ...list.items.filter((one) => one !== item)];
  return [
    {
      label: `Move it to the front of “${list.name}”`,
      edits: changed('playlist', list, { items }),
    },
  ];
}

/** Gives the network a backdrop that always has something to show on every screen; none where it has one. */
export function networkBackdrop(plan: Plan): Fix[] {
  const first = plan.playlists.find((list) => alwaysShows(plan, list));
  if (plan.network.backdrop || !first) return [];
  const backdrop: Content = { playlist: first.id };
  const patch = patchOf('network', NETWORK_ID, plan.network, { ...plan.network, backdrop });
  return [
    {
      label: `Make “${first.name}” the network’s backdrop`,
      edits: patch ? [patch] : [],
    },
  ];
}

/** Whether an item of the playlist is available at every instant, on every screen. */
function alwaysShows(plan: Plan, { items }: Playlist): boolean {
  return items.some((item) => {
    if (item.where !== undefined || (item.when && !isAlways(item.when))) return false;
    const nested = plan.playlists.find(({ id }) => id === item.playlist);
    if (nested) return alwaysShows(plan, nested);
    return itemFiles(plan, item).some((file) => !file.when || isAlways(file.when));
  });
}

export const withoutMusic = (list: Playlist): Fix => ({
  label: `Remove the music of “${list.name}”`,
  edits: changed('playlist', list, { music: undefined }),
});

/** Silences a film in a playlist; none where it sounds by a nested playlist or by a rule. */
export function silence(list: Playlist, film: string, name: string): Fix[] {
  if (!list.items.some((item) => item.media === film && item.volume)) return [];
  const items = list.items.map((item) => (item.media === film ? { ...item, volume: undefined } : item));
  return [{ label: `Silence “${name}”`, edits: changed('playlist', list, { items }) }];
}
