'use client';

import { useDraggable } from '@dnd-kit/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { Media } from '@/core';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { Input } from '@/interface/kit/field';
import { duration } from '@/interface/kit/format';
import { Thumb } from '@/interface/kit/thumb';

/** The library beside a playlist, to drag from. */
export function Palette({ onAdd }: { onAdd: (media: string) => void }) {
  const { draft } = useNetwork('draft');
  const [search, setSearch] = useState('');
  const text = search.trim().toLowerCase();
  const found = draft.media
    .filter(
      ({ name, tags, kind }) =>
        text === '' || name.toLowerCase().includes(text) || tags?.some((tag) => tag.startsWith(text)) || kind === text,
    )
    .sort((a, b) => (a.added < b.added ? 1 : -1));
  return (
    <aside aria-label="Media" className="flex w-72 shrink-0 flex-col border-l border-rule bg-sheet">
      <div className="p-4 pb-2">
        <Input
          data-search
          aria-label="Find media"
          placeholder="Find media"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {found.map((media) => (
          <Draggable key={media.id} media={media} onAdd={() => onAdd(media.id)} />
        ))}
        {found.length === 0 && (
          <li className="py-4 text-sm text-faint">
            {draft.media.length === 0 ? 'The library is empty: add files there first.' : 'Nothing found.'}
          </li>
        )}
      </ul>
    </aside>
  );
}

function Draggable({ media, onAdd }: { media: Media; onAdd: () => void }) {
  const { listeners, setNodeRef } = useDraggable({ id: `media-${media.id}`, data: { media: media.id } });
  const thumbnail = useThumbnails();
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <div
        ref={setNodeRef}
        {...listeners}
        data-palette={media.id}
        className="flex min-w-0 flex-1 cursor-grab touch-none items-center gap-3"
      >
        <Thumb src={thumbnail(media.id)} alt="" className="h-11 w-16 shrink-0" />
        <span className="min-w-0">
          <span className="block truncate text-sm font-semibold">{media.name}</span>
          <span className="block font-code text-[11px] text-faint">
            {media.width}×{media.height}
            {media.durationMs !== undefined && ` · ${duration(media.durationMs)}`}
          </span>
        </span>
      </div>
      <button type="button" aria-label={`Add ${media.name}`} onClick={onAdd} className="p-1 hover:text-tide">
        <Plus size={18} aria-hidden />
      </button>
    </li>
  );
}
