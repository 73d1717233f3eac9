'use client';

import { useDraggable } from '@dnd-kit/core';
import { Plus } from 'lucide-react';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { CONTENTS, contentFrom, reachingLayouts, type Content, type Media } from '@/core/plan';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { useLibrary } from '@/interface/data/queries';
import { firstMedia } from '@/interface/kit/content/content';
import { Thumb } from '@/interface/kit/content/thumb';
import { Input } from '@/interface/kit/controls/field';
import { More } from '@/interface/kit/controls/more';
import { hasWords } from '@/interface/kit/words/has-words';
import { MEDIA_WORDS } from '@/interface/kit/words/media-words';
import type { Dragged } from './use-zone-dragging';

/** What can be put into a zone, to drag from: playlists, cards, inputs of the displays, and files. */
export function Shelf({
  zone,
  onAdd,
}: {
  /** The chosen zone: what is pressed goes there. */
  zone: string | null;
  onAdd: (content: Content) => void;
}) {
  const { draft, hold } = useNetwork('draft', 'hold');
  const [search, setSearch] = useState('');
  const found = useDeferredValue(search.trim());
  const { files, total = 0, failed, hasMore, more } = useLibrary(found);
  const media = useMemo(() => new Map(draft.media.map((file) => [file.id, file])), [draft.media]);
  const others = useMemo(() => {
    const reaching = reachingLayouts(draft.playlists);
    const inputs = new Map(draft.profiles.flatMap(({ inputs: list = [] }) => list.map(({ id, name }) => [id, name])));
    return [
      ...draft.playlists
        .filter(({ id, archived }) => !archived && !reaching.has(id))
        .map(({ id, name }) => ({ kind: 'playlist' as const, id, name })),
      ...draft.bulletins.map(({ id, name }) => ({ kind: 'bulletin' as const, id, name })),
      ...[...inputs].map(([id, name]) => ({ kind: 'input' as const, id, name })),
    ].sort((a, b) => a.name.localeCompare(b.name));
  }, [draft.playlists, draft.bulletins, draft.profiles]);
  const shown = others.filter(({ name }) => hasWords(name, found));
  const put = (content: Content, file?: Media) => {
    if (file) hold([file]);
    onAdd(content);
  };
  return (
    <aside
      aria-label="To put into a zone"
      className="flex w-64 shrink-0 flex-col border-l border-rule bg-sheet max-md:w-full max-md:border-t max-md:border-l-0"
    >
      <div className="p-4 pb-2">
        <Input
          data-search
          aria-label="Find what to show"
          placeholder="Find what to show"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <p className="mt-1.5 text-xs text-faint">Drag it into a zone, or press + to put it into {zone ?? 'a zone'}.</p>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {shown.map(({ kind, id, name }) => {
          const content = contentFrom({ kind, id });
          const first = kind === 'playlist' ? media.get(firstMedia(draft, content) ?? '') : undefined;
          return (
            <Row
              key={`${kind} ${id}`}
              {...{ content, name, zone }}
              what={CONTENTS[kind].called}
              picture={<Thumb src={first && thumbnailOf(first)} alt="" className="h-8 w-12 shrink-0" />}
              onAdd={() => put(content)}
            />
          );
        })}
        {files
          ?.filter(({ kind }) => kind !== 'sound')
          .map((file) => {
            const content: Content = { media: file.id };
            return (
              <Row
                key={file.id}
                {...{ content, zone, file }}
                name={file.name}
                what={MEDIA_WORDS[file.kind]}
                picture={<Thumb src={thumbnailOf(file)} alt="" className="h-8 w-12 shrink-0" />}
                onAdd={() => put(content, file)}
              />
            );
          })}
        {files?.length === 0 && shown.length === 0 && (
          <li className="py-4 text-sm text-faint">
            {found === '' ? 'There is nothing yet. Add files to the library first.' : 'No results'}
          </li>
        )}
        {failed && <li className="py-4 text-sm text-brick">The library isn’t answering. Try again in a moment.</li>}
        {hasMore && files && (
          <li>
            <More left={total - files.length} onMore={more} />
          </li>
        )}
      </ul>
    </aside>
  );
}

function Row({
  content,
  name,
  what,
  zone,
  file,
  picture,
  onAdd,
}: {
  content: Content;
  name: string;
  what: string;
  zone: string | null;
  /** The file that it is, where it is one: the page may not know it yet. */
  file?: Media;
  picture: ReactNode;
  onAdd: () => void;
}) {
  const data: Dragged = { content, name, file };
  const { listeners, setNodeRef } = useDraggable({ id: `shelf ${JSON.stringify(content)}`, data });
  return (
    <li className="flex items-center gap-2 border-b border-rule py-1.5">
      <div
        ref={setNodeRef}
        {...listeners}
        data-shelf={name}
        className="flex min-w-0 flex-1 cursor-grab touch-none items-center gap-2"
      >
        {picture}
        <span className="min-w-0">
          <span className="block truncate text-sm font-semibold">{name}</span>
          <span className="block text-xs text-faint">{what}</span>
        </span>
      </div>
      {zone !== null && (
        <button
          type="button"
          aria-label={`Put ${name} into ${zone}`}
          onClick={onAdd}
          className="flex size-7 items-center justify-center hover:text-tide"
        >
          <Plus size={18} aria-hidden />
        </button>
      )}
    </li>
  );
}
