import type { Item, Plan } from '@/core';

/** What an item is called in a list. */
export function itemName(plan: Plan, item: Item): string {
  if (item.collect !== undefined) return `all ${item.collect}`;
  if (item.playlist !== undefined) return plan.playlists.find((one) => one.id === item.playlist)?.name ?? item.playlist;
  return plan.media.find((one) => one.id === item.media)?.name ?? item.media;
}
