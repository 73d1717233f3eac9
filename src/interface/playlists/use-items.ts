'use client';

import { useCallback, useState } from 'react';
import { changed, newEntryId, type Item, type Playlist } from '@/core';
import { useNetwork } from '@/interface/data/provider';

/**
 * A playlist's items under their own ids, which stay while they move. Changes are seen at once, and saved item by item, so that
 * two people in one playlist do not undo each other's; a refused one is taken back.
 */
export function useItems(playlist: Playlist) {
  const { edit } = useNetwork('edit');
  const [pending, setPending] = useState<readonly Item[] | null>(null);
  const items = pending ?? playlist.items;
  const rows = items.map((item, i) => ({ key: item.id ?? `at-${i}`, item }));

  const change = useCallback(
    (wanted: readonly Item[]) => {
      const next = wanted.map((item) => (item.id === undefined ? { ...item, id: newEntryId(Math.random) } : item));
      setPending(next);
      void edit(changed('playlist', { ...playlist, items: [...items] }, { items: next })).then((result) => {
        if (!result.ok) setPending((now) => (now === next ? null : now));
      });
    },
    [edit, playlist, items],
  );

  // Once the server's list is what was wished for, it is the truth again.
  if (pending && JSON.stringify(pending) === JSON.stringify(playlist.items)) setPending(null);
  return { rows, items, change };
}
