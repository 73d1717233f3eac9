'use client';

import { useDraggable } from '@dnd-kit/core';
import { Plus } from 'lucide-react';
import { useDeferredValue, useRef, useState, type MouseEvent, type ReactNode } from 'react';
import type { Media } from '@/core/plan';
import { thumbnailOf } from '@/interface/data/provider';
import { useLibrary } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { counted, duration } from '@/interface/kit/words/format';
import { More } from '@/interface/kit/controls/more';
import { Thumb } from '@/interface/kit/content/thumb';

/** The library beside a playlist, to drag from: one file, or all that are chosen. */
export function Palette({
  onAdd,
  children,
}: {
  onAdd: (files: readonly Media[]) => void;
  /** What stands over it for a while. */
  children?: ReactNode;
}) {
  const [search, setSearch] = useState('');
  // They stay chosen while you search for others.
  const [chosen, setChosen] = useState<ReadonlyMap<string, Media>>(new Map());
  const last = useRef(0);
  const { files, total = 0, failed, hasMore, more } = useLibrary(useDeferredValue(search.trim()));
  return (
    <aside
      aria-label="Media"
      className="relative flex w-72 shrink-0 flex-col border-l border-rule bg-sheet max-md:w-full max-md:border-t max-md:border-l-0"
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
      {chosen.size > 0 && (
        <p className="flex items-center gap-2 px-4 pb-2 text-sm">
          <Button
            needs="plan"
            onClick={() => {
              onAdd([...chosen.values()]);
              setChosen(new Map());
            }}
          >
            Add {counted(chosen.size, 'file')}
          </Button>
          <Button variant="quiet" onClick={() => setChosen(new Map())}>
            {' '}
            Clear selection{' '}
          </Button>
        </p>
      )}
      <ul className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {files?.map((file, i) => (
          <Draggable
            key={file.id}
            media={file}
            chosen={chosen.has(file.id)}
            files={chosen.has(file.id) ? [...chosen.values()] : [file]}
            onChoose={({ shiftKey }) => {
              const next = new Map(chosen);
              const [from, to] = shiftKey ? [Math.min(last.current, i), Math.max(last.current, i)] : [i, i];
              const on = !chosen.has(file.id);
              for (const one of files.slice(from, to + 1)) {
                if (on) next.set(one.id, one);
                else next.delete(one.id);
              }
              last.current = i;
              setChosen(next);
            }}
            onAdd={() => onAdd([file])}
          />
        ))}
        {files?.length === 0 && (
          <li className="py-4 text-sm text-faint">
            {search.trim() === '' ? 'The library is empty: add files there first.' : 'Nothing found.'}
          </li>
        )}
        {failed && <li className="py-4 text-sm text-brick">The library isn’t answering. Try again in a moment.</li>}
        {hasMore && files && (
          <li>
            <More left={total - files.length} onMore={more} />
          </li>
        )}
      </ul>
      {children}
    </aside>
  );
}

function Draggable({
  media,
  chosen,
  files,
  onChoose,
  onAdd,
}: {
  media: Media;
  chosen: boolean;
  /** What is dragged by it: it alone, or all that are chosen. */
  files: readonly Media[];
  onChoose: (event: MouseEvent) => void;
  onAdd: () => void;
}) {
  const { listeners, setNodeRef } = useDraggable({ id: `media-${media.id}`, data: { files } });
  return (
    <li className={`flex items-center gap-2 border-b border-rule py-2 ${chosen ? 'bg-well' : ''}`}>
      <input
        type="checkbox"
        aria-label={`Choose the file ${media.name}`}
        className="size-4 shrink-0 accent-dusk"
        checked={chosen}
        onChange={() => undefined}
        onClick={onChoose}
      />
      <div
        ref={setNodeRef}
        {...listeners}
        data-palette={media.id}
        className="flex min-w-0 flex-1 cursor-grab touch-none items-center gap-2"
      >
        <Thumb src={thumbnailOf(media)} alt="" className="h-10 w-14 shrink-0" />
        <span className="min-w-0">
          <span className="block truncate text-sm font-semibold">{media.name}</span>
          <span className="block truncate font-code text-[11px] text-faint">
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
