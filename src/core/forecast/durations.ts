import type { Item, Media, Plan } from '../plan/schema';
import { isShown, knownItem } from '../plan/known';
import { objectIn } from '../plan/patch';
import { never } from '../refusal';
import { mediaOrder } from './flatten';
import { matches, mediaTerms, selectorOf } from '../selector';

/** How long one item of a playlist lasts in a round, in milliseconds, if all of it is available; and how many turns it has. */
export function itemLength(plan: Plan, item: Item): { durationMs: number; files: number } {
  return lengthWithin(plan, item, new Set());
}

/** How long a playlist's loop is where all of it is available. */
export function loopLength(plan: Plan, items: readonly Item[]): number {
  return items.reduce((sum, item) => sum + itemLength(plan, item).durationMs, 0);
}

function lengthWithin(plan: Plan, item: Item, above: ReadonlySet<string>): { durationMs: number; files: number } {
  const usual = plan.network.defaultDurationMs ?? 10_000;
  const what = knownItem(item);
  switch (what.kind) {
    case 'playlist': {
      const nested = above.has(what.id) ? undefined : plan.playlists.find((one) => one.id === what.id);
      const inside = new Set([...above, what.id]);
      return (nested?.archived ? [] : (nested?.items ?? []))
        .map((one) => lengthWithin(plan, one, inside))
        .reduce((sum, one) => ({ durationMs: sum.durationMs + one.durationMs, files: sum.files + one.files }), {
          durationMs: 0,
          files: 0,
        });
    }
    case 'media':
    case 'collect': {
      const files = itemFiles(plan, item);
      const cut = item.clip && item.clip[1] - item.clip[0];
      return {
        durationMs: files.reduce((sum, file) => sum + (cut ?? what.durationMs ?? file.durationMs ?? usual), 0),
        files: files.length,
      };
    }
    case 'layout':
    case 'bulletin':
    case 'input': {
      const shown = what.kind === 'input' ? null : objectIn(plan, what.kind, what.id);
      return { durationMs: what.durationMs ?? shown?.durationMs ?? usual, files: 1 };
    }
    default:
      return never(what);
  }
}

/** How long the sounds of a playlist last, nested ones too, in milliseconds: a round of it as the music of another. */
export function soundLength(plan: Plan, items: readonly Item[], above: ReadonlySet<string> = new Set()): number {
  return items.reduce((sum, item) => {
    const what = knownItem(item);
    if (what.kind !== 'playlist')
      return sum + filesOf(plan, item, true).reduce((all, file) => all + (file.durationMs ?? 0), 0);
    const nested = above.has(what.id) ? undefined : plan.playlists.find(({ id }) => id === what.id);
    return sum + soundLength(plan, nested?.archived ? [] : (nested?.items ?? []), new Set([...above, what.id]));
  }, 0);
}

/** The files that an item shows itself, in their order: one, those that a collecting rule finds, or none for what isn't a file. */
export const itemFiles = (plan: Plan, item: Item): readonly Media[] => filesOf(plan, item, false);

function filesOf(plan: Plan, item: Item, heard: boolean): readonly Media[] {
  const wanted = (file: Media) => !file.archived && isShown(file) !== heard;
  const what = knownItem(item);
  switch (what.kind) {
    case 'playlist':
    case 'layout':
    case 'bulletin':
    case 'input':
      return [];
    case 'media':
      return plan.media.filter((file) => file.id === what.id && wanted(file));
    case 'collect':
      return plan.media
        .filter((file) => wanted(file) && matches(selectorOf(what.rule), mediaTerms(file)))
        .sort(mediaOrder(what.order))
        .slice(0, what.limit);
    default:
      return never(what);
  }
}
