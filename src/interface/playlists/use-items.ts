'use client';

import { useCallback } from 'react';
import { changed, newEntryId, type Item, type Patch, type Playlist } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';

/**
 * A playlist's items under their own ids, which stay while they move. Changes are saved item by item, so that two people in one
 * playlist do not undo each other's.
 */
export function useItems(playlist: Playlist) {
  const { edit } = useNetwork('edit');
  const { items } = playlist;
  const rows = items.map((item, i) => ({ key: item.id ?? `at-${i}`, item }));
  const change = useCallback(
    (wanted: readonly Item[]) => {
      const next = wanted.map((item) => (item.id === undefined ? { ...item, id: newEntryId(Math.random) } : item));
      return edit(changed('playlist', playlist, { items: next }));
    },
    [edit, playlist],
  );
  return { rows, items, change };
}

/** Items of one playlist, by their ids, go to the end of another: entries of its own, with all that is said of them. */
export function itemsTo(from: Playlist, to: Playlist, ids: ReadonlySet<string>): Patch[] {
  const goes = ({ id }: Item) => id !== undefined && ids.has(id);
  const there = from.items.filter(goes).map((item) => ({ ...item, id: newEntryId(Math.random) }));
  return [
    ...changed('playlist', from, { items: from.items.filter((item) => !goes(item)) }),
    ...changed('playlist', to, { items: [...to.items, ...there] }),
  ];
}
