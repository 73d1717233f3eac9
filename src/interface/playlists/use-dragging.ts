'use client';

import {
  useSensor,
  useSensors,
  type Active,
  type Announcements,
  type DragEndEvent,
  type DroppableContainer,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { useState } from 'react';
import type { Item, Media, Playlist } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { counted } from '@/interface/kit/words/format';
import { itemName } from './item-name';
import { KeysAtOnceSensor } from './keys-at-once';
import { LastMoveSensor } from './last-move';
import { movedTo } from './order';
import { playlistUnder, rowsAndPlaylists } from './other-playlists';
import { itemsTo } from './use-items';

/** What is dragged over a playlist's rows, with the mouse or by keys: an item, all that are chosen, or files; and where it lands. */
export function useDragging({
  playlist,
  rows,
  items,
  held,
  change,
  put,
}: {
  playlist: Playlist;
  rows: readonly { readonly key: string; readonly item: Item }[];
  items: readonly Item[];
  /** The keys of the rows that are chosen. */
  held: ReadonlySet<string>;
  change: (items: readonly Item[]) => Promise<unknown>;
  put: (files: readonly Media[], at: number) => void;
}) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const [dragged, setDragged] = useState<readonly Media[]>([]);
  const [carried, carry] = useState<UniqueIdentifier | null>(null);
  const [line, setLine] = useState<{ readonly row: number; readonly below: boolean } | null>(null);
  const sensors = useSensors(
    useSensor(LastMoveSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeysAtOnceSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  /** Which rows go with the one that is dragged: all that are chosen, where it is one of them. */
  const together = (id: UniqueIdentifier) =>
    new Set(rows.flatMap(({ key }, i) => (key === id || (held.has(String(id)) && held.has(key)) ? [i] : [])));
  /** Where what is dragged would land: above or below a row. Null where no line is drawn: a single item makes room for itself. */
  const landing = ({ active, collisions }: Pick<DragEndEvent, 'active' | 'collisions'>) => {
    const over = collisions?.[0];
    const row = rows.findIndex(({ key }) => key === over?.id);
    if (!over || row < 0) return null;
    if (filesOf(active).length === 0) {
      const places = together(active.id);
      return places.size < 2 || places.has(row) ? null : { row, below: Math.min(...places) < row };
    }
    // Below the middle of the row that it is held over, it goes after that row.
    const held = active.rect.current.translated;
    const rect = (over.data as { droppableContainer: DroppableContainer }).droppableContainer.rect.current;
    return { row, below: held !== null && rect !== null && held.top + held.height / 2 > rect.top + rect.height / 2 };
  };
  const leave = () => {
    setDragged([]);
    carry(null);
    setLine(null);
  };
  const onDragEnd = ({ active, collisions }: DragEndEvent) => {
    leave();
    const over = collisions?.[0];
    const place = rows.findIndex((row) => row.key === over?.id);
    const from = rows.findIndex((row) => row.key === active.id);
    const other = playlistUnder(draft, over?.id);
    const files = filesOf(active);
    if (other && from >= 0) {
      const ids = new Set([...together(active.id)].flatMap((at) => rows[at]?.key ?? []));
      void edit(
        itemsTo(playlist, other, ids),
        `${counted(ids.size, 'item')} moved from “${playlist.name}” to “${other.name}”.`,
      );
    } else if (over && files.length > 0) {
      const at = landing({ active, collisions });
      put(files, at ? at.row + (at.below ? 1 : 0) : items.length);
    } else if (from >= 0 && place >= 0 && from !== place) {
      const next = movedTo(items, together(active.id), place);
      if (next !== items) void change(next);
    }
  };
  /** "House flag is", "3 items are". */
  const named = (id: UniqueIdentifier) => {
    const row = rows.find(({ key }) => key === id);
    const count = together(id).size;
    return count > 1 ? `${counted(count, 'item')} are` : `${row ? itemName(draft, row.item) : 'The file'} is`;
  };
  const placed = (id: UniqueIdentifier, over: UniqueIdentifier | undefined) => {
    const place = rows.findIndex(({ key }) => key === over);
    const other = playlistUnder(draft, over);
    if (other) return `${named(id)} over the playlist ${other.name}.`;
    return place < 0 ? `${named(id)} at the end.` : `${named(id)} at ${place + 1} of ${rows.length}.`;
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${named(active.id)} picked up. Arrows move it, Space puts it down, Escape cancels.`,
    onDragOver: ({ active, over }) => placed(active.id, over?.id),
    onDragEnd: ({ active, over }) => `Put down. ${placed(active.id, over?.id)}`,
    onDragCancel: ({ active }) => `${named(active.id)} where it was.`,
  };
  const context = {
    sensors,
    accessibility: { announcements },
    collisionDetection: rowsAndPlaylists,
    onDragStart: ({ active }: { readonly active: Active }) => {
      setDragged(filesOf(active));
      carry(active.id);
    },
    onDragMove: (event: Pick<DragEndEvent, 'active' | 'collisions'>) => {
      const to = landing(event);
      setLine((now) => (now?.row === to?.row && now?.below === to?.below ? now : to));
    },
    onDragEnd,
    onDragCancel: leave,
  };
  return { context, dragged, carried, line, together };
}

/** The files from the palette that are dragged; none for an item of the list. */
const filesOf = ({ data }: Active): readonly Media[] =>
  (data.current as { files?: readonly Media[] } | undefined)?.files ?? [];
