import type { Content, Plan } from '@/core';

/** A place of the plan that shows a file. */
export interface Use {
  readonly what: string;
  readonly path: string;
}

/** Where a file is used by name; collecting rules may show it besides. */
export function usesOf(plan: Plan, media: string): Use[] {
  const shows = (content: Content | undefined) => content?.media === media;
  return [
    ...plan.playlists
      .filter((playlist) => playlist.items.some((item) => item.media === media))
      .map(({ id, name }) => ({ what: `playlist ${name}`, path: `/playlists/${id}` })),
    ...plan.bookings
      .filter((booking) => shows(booking.content))
      .map(({ name }) => ({ what: `booking ${name}`, path: '/plan' })),
    ...plan.sites
      .filter((site) => shows(site.backdrop))
      .map(({ name }) => ({ what: `backdrop of ${name}`, path: '/screens' })),
    ...plan.screens
      .filter((screen) => shows(screen.backdrop))
      .map(({ name }) => ({ what: `backdrop of ${name}`, path: '/screens' })),
    ...(shows(plan.network.backdrop) ? [{ what: 'backdrop of the network', path: '/plan' }] : []),
  ];
}
