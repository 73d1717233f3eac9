/** What keeps layouts out of layouts: a zone shows none, nor a playlist with a layout anywhere inside (domain section 10). */

type Loose = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null;
const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/** The playlists that reach a layout. Reads documents that are not known to be well-formed. */
export function reachingLayouts(playlists: readonly unknown[]): ReadonlySet<string> {
  const reaching = new Set<string>();
  const lists = playlists.filter(isObject).map(({ id, items }) => ({ id, items: listOf(items).filter(isObject) }));
  for (let size = -1; size !== reaching.size;) {
    size = reaching.size;
    for (const { id, items } of lists)
      if (typeof id === 'string')
        if (items.some((item) => item.layout !== undefined || reaching.has(String(item.playlist)))) reaching.add(id);
  }
  return reaching;
}

/** The zones that show a playlist in which a layout is, by the layout's place in its list. */
export function layoutProblems(
  layouts: readonly unknown[],
  playlists: readonly unknown[],
): { readonly path: readonly (string | number)[]; readonly message: string }[] {
  if (layouts.length === 0) return [];
  const reaching = reachingLayouts(playlists);
  return layouts.flatMap((layout, i) =>
    listOf(isObject(layout) ? layout.zones : null).flatMap((zone, j) => {
      const content = isObject(zone) && isObject(zone.content) ? zone.content : {};
      return typeof content.playlist === 'string' && reaching.has(content.playlist)
        ? [
            {
              path: [i, 'zones', j, 'content', 'playlist'],
              message: 'This playlist has a layout in it, and a zone can’t show one. Take it out, or choose another.',
            },
          ]
        : [];
    }),
  );
}
