'use client';

import { useCallback, useRef, useState } from 'react';
import type { Item, Playlist } from '@/core';
import { useNetwork } from '@/interface/data/provider';

/** A playlist's items with keys that stay while they move. Changes are seen at once, and saved; a refused one is taken back. */
export function useItems(playlist: Playlist) {
  const { edit } = useNetwork();
  const [pending, setPending] = useState<readonly Item[] | null>(null);
  const items = pending ?? playlist.items;
  const keys = useRef(new Map<string, string>());
  const count = useRef(0);

  // The same content in the list keeps its key: the n-th occurrence of each.
  const seen = new Map<string, number>();
  const rows = items.map((item) => {
    const text = JSON.stringify(item.media ?? item.playlist ?? item.collect);
    const nth = (seen.get(text) ?? 0) + 1;
    seen.set(text, nth);
    const name = `${text}#${nth}`;
    let key = keys.current.get(name);
    if (!key) keys.current.set(name, (key = `item-${++count.current}`));
    return { key, item };
  });

  const change = useCallback(
    (next: readonly Item[]) => {
      setPending(next);
      void edit([{ kind: 'playlist', id: playlist.id, document: { name: playlist.name, items: next } }]).then(
        (result) => {
          if (!result.ok) setPending((now) => (now === next ? null : now));
        },
      );
    },
    [edit, playlist.id, playlist.name],
  );

  // Once the server's list is what was wished for, it is the truth again.
  if (pending && JSON.stringify(pending) === JSON.stringify(playlist.items)) setPending(null);
  return { rows, items, change };
}
