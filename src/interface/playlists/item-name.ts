import { knownItem, never, type Item, type Plan } from '@/core';

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
    default:
      return never(what);
  }
}
