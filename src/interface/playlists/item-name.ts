import { loopLength, soundLength } from '@/core/forecast';
import { contentFrom, knownItem, type Item, type Plan } from '@/core/plan';
import { never } from '@/core/refusal';
import { contentObject } from '@/interface/kit/content/content';
import { duration } from '@/interface/kit/words/format';

/** What an item is called in a list. */
export function itemName(plan: Plan, item: Item): string {
  const what = knownItem(item);
  switch (what.kind) {
    case 'collect':
      return `all ${what.rule}`;
    case 'playlist':
      return plan.playlists.find((one) => one.id === what.id)?.name ?? what.id;
    case 'media':
      return plan.media.find((one) => one.id === what.id)?.name ?? what.id;
    case 'layout':
    case 'bulletin':
    case 'input':
      return contentObject(plan, contentFrom(what))?.name ?? what.id;
    default:
      return never(what);
  }
}

/** How long a pass of a playlist lasts, or where nothing of it is seen, its sounds. */
export function lengthWords(plan: Plan, items: readonly Item[]): string {
  const shown = loopLength(plan, items);
  const heard = shown === 0 ? soundLength(plan, items) : 0;
  return heard > 0 ? `${duration(heard)} of sound` : duration(shown);
}
