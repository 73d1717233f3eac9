import type { Content, Layout, Media, Plan, Playlist } from '@/core/plan';
import { matches, mediaTerms, selectorOf } from '@/core/selector';
import { pathTo } from './path-to';

/** A place of the plan that shows a file, a playlist or a layout, or lets it be heard. */
export interface Use {
  readonly what: string;
  readonly path: string;
}

export type Used =
  | { readonly kind: 'media'; readonly object: Media }
  | { readonly kind: 'playlist'; readonly object: Playlist }
  | { readonly kind: 'layout'; readonly object: Layout };

/** Where a file, a playlist or a layout is used: by name, or by a rule that collects files like it. */
export function usesOf(plan: Plan, used: Used): Use[] {
  const { kind } = used;
  const { id } = used.object;
  const shows = (content: Content | undefined) => content?.[kind] === id;
  return [
    ...plan.playlists
      .filter((playlist) => playlist.items.some((item) => item[kind] === id))
      .map((playlist) => ({ what: `playlist ${playlist.name}`, path: pathTo({ kind: 'playlist', id: playlist.id }) })),
    ...plan.layouts
      .filter(({ zones }) => zones.some(({ content }) => shows(content)))
      .map((layout) => ({ what: `layout ${layout.name}`, path: pathTo({ kind: 'layout', id: layout.id }) })),
    ...(used.kind === 'media' ? collecting(plan, used.object) : []),
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

/** The playlists whose rules collect files like this one. Nothing collects what is archived. */
function collecting(plan: Plan, file: Media): Use[] {
  if (file.archived) return [];
  const terms = mediaTerms(file);
  return plan.playlists.flatMap((playlist) => {
    const rule = playlist.items.find(({ collect }) => collect !== undefined && matches(selectorOf(collect), terms));
    if (rule?.collect === undefined) return [];
    const most = rule.limit === undefined ? '' : `, which takes the first ${rule.limit}`;
    const what = `playlist ${playlist.name}, by its rule “${rule.collect}”${most}`;
    return [{ what, path: pathTo({ kind: 'playlist', id: playlist.id }) }];
  });
}
