import { knownItem } from '../plan/known';
import type { Zone } from '../plan/kinds/layout';
import { objectIn } from '../plan/patch';
import type { Plan } from '../plan/schema';

/** The zones whose videos or music would be heard, if theirs were the zone that is: playlists with a volume or with music anywhere inside. */
export const wantSound = (plan: Plan, zones: readonly Zone[]): Zone[] =>
  zones.filter(({ content }) => content?.playlist !== undefined && isHeard(plan, content.playlist, new Set()));

function isHeard(plan: Plan, id: string, above: ReadonlySet<string>): boolean {
  const list = objectIn(plan, 'playlist', id);
  if (!list || list.archived || above.has(id)) return false;
  const isMusic = above.size === 0 && list.music !== undefined && list.music.volume > 0;
  return (
    isMusic ||
    list.items.some((item) => {
      const what = knownItem(item);
      return what.kind === 'playlist' ? isHeard(plan, what.id, new Set([...above, id])) : (item.volume ?? 0) > 0;
    })
  );
}
