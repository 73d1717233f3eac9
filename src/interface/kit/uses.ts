import type { Content, Plan } from '@/core';
import { pathTo } from './path-to';

/** A place of the plan that shows a file or a playlist, or lets it be heard. */
export interface Use {
  readonly what: string;
  readonly path: string;
}

/** Where a file or playlist is used by name; collecting rules may show a file besides. */
export function usesOf(plan: Plan, { kind, id }: { readonly kind: 'media' | 'playlist'; readonly id: string }): Use[] {
  const shows = (content: Content | undefined) => content?.[kind] === id;
  return [
    ...plan.playlists
      .filter((playlist) => playlist.items.some((item) => item[kind] === id))
      .map((playlist) => ({ what: `playlist ${playlist.name}`, path: pathTo({ kind: 'playlist', id: playlist.id }) })),
    ...plan.playlists
      .filter(({ music }) => kind === 'playlist' && music?.playlist === id)
      .map((playlist) => ({ what: `music of ${playlist.name}`, path: pathTo({ kind: 'playlist', id: playlist.id }) })),
    ...plan.bookings
      .filter((booking) => shows(booking.content))
      .map((booking) => ({ what: `booking ${booking.name}`, path: pathTo({ kind: 'booking', id: booking.id }) })),
    ...plan.sites
      .filter((site) => shows(site.backdrop))
      .map((site) => ({ what: `backdrop of ${site.name}`, path: pathTo({ kind: 'site', id: site.id }) })),
    ...plan.screens
      .filter((screen) => shows(screen.backdrop))
      .map((screen) => ({ what: `backdrop of ${screen.name}`, path: pathTo({ kind: 'screen', id: screen.id }) })),
    ...(shows(plan.network.backdrop) ? [{ what: 'backdrop of the network', path: '/network' }] : []),
  ];
}
