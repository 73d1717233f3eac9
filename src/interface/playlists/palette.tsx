'use client';

import { useDraggable } from '@dnd-kit/core';
import { Plus } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import type { Media } from '@/core';
import { thumbnailOf } from '@/interface/data/provider';
import { useLibrary } from '@/interface/data/queries';
import { Input } from '@/interface/kit/field';
import { duration } from '@/interface/kit/format';
import { More } from '@/interface/kit/more';
import { Thumb } from '@/interface/kit/thumb';

/** The library beside a playlist, to drag from. */
export function Palette({ onAdd }: { onAdd: (file: Media) => void }) {
  const [search, setSearch] = useState('');
  const { files, total = 0, failed, hasMore, more } = useLibrary(useDeferredValue(search.trim()));
  return (
    <aside
      aria-label="Media"
      className="flex w-72 shrink-0 flex-col border-l border-rule bg-sheet max-md:w-full max-md:border-t max-md:border-l-0"
    >
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
        {files?.map((file) => (
          <Draggable key={file.id} media={file} onAdd={() => onAdd(file)} />
        ))}
        {files?.length === 0 && (
          <li className="py-4 text-sm text-faint">
            {search.trim() === '' ? 'The library is empty: add files there first.' : 'Nothing found.'}
          </li>
        )}
        {failed && <li className="py-4 text-sm text-brick">The library does not answer: try again in a moment.</li>}
        {hasMore && files && (
          <li>
            <More left={total - files.length} onMore={more} />
          </li>
        )}
      </ul>
    </aside>
  );
}

function Draggable({ media, onAdd }: { media: Media; onAdd: () => void }) {
  const { listeners, setNodeRef } = useDraggable({ id: `media-${media.id}`, data: { file: media } });
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2">
      <div
        ref={setNodeRef}
        {...listeners}
        data-palette={media.id}
        className="flex min-w-0 flex-1 cursor-grab touch-none items-center gap-3"
      >
        <Thumb src={thumbnailOf(media)} alt="" className="h-11 w-16 shrink-0" />
        <span className="min-w-0">
          <span className="block truncate text-sm font-semibold">{media.name}</span>
          <span className="block font-code text-[11px] text-faint">
            {[
              media.width === undefined ? 'sound' : `${media.width}×${media.height}`,
              ...(media.durationMs === undefined ? [] : [duration(media.durationMs)]),
            ].join(' · ')}
          </span>
        </span>
      </div>
      <button type="button" aria-label={`Add ${media.name}`} onClick={onAdd} className="p-1 hover:text-tide">
        <Plus size={18} aria-hidden />
      </button>
    </li>
  );
}
