'use client';

import { DndContext, DragOverlay } from '@dnd-kit/core';
import { SortableContext, arrayMove, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { group } from 'd3-array';
import { useMemo, useState } from 'react';
import { flushSync } from 'react-dom';
import { passesOf, type Turn } from '@/core/forecast';
import type { Item, Media, Playlist } from '@/core/plan';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { Archived } from '@/interface/kit/content/archive';
import { Locked, Only, WhyNot } from '@/interface/data/may';
import { Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { hasWords } from '@/interface/kit/words/has-words';
import { Thumb } from '@/interface/kit/content/thumb';
import { itemsOf } from '@/interface/kit/content/items-of';
import { AsSeenOn } from './as-seen-on';
import { ChosenItems } from './chosen-items';
import { DropList } from './drop-list';
import { MoreItems } from './more-items';
import { PlaylistActs } from './playlist-acts';
import { PlaylistHead } from './playlist-head';
import { useChosen } from './use-chosen';
import { useDragging } from './use-dragging';
import { itemName } from './item-name';
import { ItemRow, Together } from './item-row';
import { MusicChoice } from './music-choice';
import { movedTo } from './order';
import { OtherPlaylists } from './other-playlists';
import { Palette } from './palette';
import { Passes } from './passes';
import { hasSeconds } from './stretch';
import { useItems } from './use-items';

const NO_TURNS: readonly Turn[] = [];

/** Leads to an item's row, as its turn in the strip was pressed. */
function focusRow(key: string | undefined): void {
  const row = document.querySelector<HTMLElement>(`[data-item="${CSS.escape(key ?? '')}"]`);
  row?.scrollIntoView({ block: 'nearest' });
  row?.querySelector<HTMLElement>('button')?.focus();
}

/** One playlist: how it goes round, its items in order as a stair through the pass, and the media to drag in. */
export function PlaylistEditor({ playlist }: { playlist: Playlist }) {
  const { draft, hold } = useNetwork('draft', 'hold');
  const { rows, items, change } = useItems(playlist);
  const [search, setSearch] = useState('');
  const shown = rows
    .map((row, index) => ({ ...row, index }))
    .filter(({ item }) => hasWords(itemName(draft, item), search));
  const { chosen: held, choose: holdItem, letGo } = useChosen(rows);
  const passes = useMemo(() => passesOf(draft, playlist.id), [draft, playlist.id]);
  const [wanted, choose] = useState(0);
  const chosen = Math.min(wanted, Math.max(0, passes.length - 1));
  const pass = passes[chosen];
  const turns = useMemo(() => group(pass?.turns ?? [], ({ item }) => item), [pass]);
  const insert = (item: Item, at = items.length) => change([...items.slice(0, at), item, ...items.slice(at)]);
  const put = (files: readonly Media[], at = items.length) => {
    hold(files);
    void change([...items.slice(0, at), ...itemsOf(files), ...items.slice(at)]);
  };
  const { context, dragged, carried, line, together } = useDragging({ playlist, rows, items, held, change, put });
  const move = (index: number, by: number) => {
    const to = index + by;
    if (to >= 0 && to < items.length) void change(arrayMove([...items], index, to));
  };

  return (
    <DndContext id="playlist" {...context}>
      <div className="flex h-full min-h-0 max-md:h-auto max-md:flex-col">
        <div className="min-w-0 flex-1 scroll-pb-24 overflow-y-auto px-3 py-4 sm:px-6">
          <PlaylistHead playlist={playlist} lengthMs={pass?.lengthMs} items={items} />
          <WhyNot needs="plan" />
          {playlist.archived && <Archived noun="playlist" />}
          <div className="mt-2">
            <Locked needs="plan">
              <MusicChoice playlist={playlist} />
            </Locked>
          </div>
          {passes.length > 0 && (
            <Passes
              plan={draft}
              passes={passes}
              chosen={chosen}
              onChoose={choose}
              onTurn={(item) => {
                flushSync(() => setSearch(''));
                focusRow(rows[item]?.key);
              }}
              stretches={(at) => items[at] !== undefined && hasSeconds(draft, items[at])}
              onMove={
                playlist.order === 'shuffled'
                  ? null
                  : (from, to) => {
                      const next = movedTo(items, together(rows[from]?.key ?? ''), to);
                      if (next !== items) void change(next);
                    }
              }
              onStretch={(at, durationMs) =>
                void change(items.map((one, i) => (i === at ? ({ ...one, durationMs } as Item) : one)))
              }
            />
          )}
          <AsSeenOn plan={draft} playlist={playlist} passes={passes} chosen={chosen} onChoose={choose} />
          <Locked needs="plan">
            {rows.length > 0 && (
              <div className="mt-4 flex flex-wrap items-center gap-3 text-sm">
                <div className="w-full sm:w-72">
                  <Input
                    aria-label="Find in this playlist"
                    placeholder="Find in this playlist"
                    value={search}
                    onChange={(event) => setSearch(event.target.value)}
                  />
                </div>
                {search.trim() !== '' && (
                  <p role="status" className="text-faint">
                    {shown.length} of {counted(rows.length, 'item')}
                  </p>
                )}
              </div>
            )}
            <SortableContext items={shown.map((row) => row.key)} strategy={verticalListSortingStrategy}>
              {shown.length === 0 && rows.length > 0 && (
                <p className="mt-3 text-faint">No item has “{search.trim()}” in its name.</p>
              )}
              <DropList empty={rows.length === 0}>
                {shown.map(({ key, item, index }) => (
                  <ItemRow
                    key={key}
                    place={index + 1}
                    line={line?.row !== index ? null : line.below ? 'below' : 'above'}
                    id={key}
                    playlist={playlist.id}
                    plan={draft}
                    item={item}
                    turns={turns.get(index) ?? NO_TURNS}
                    passMs={pass?.lengthMs ?? 0}
                    last={index === rows.length - 1}
                    first={index === 0}
                    chosen={held.has(key)}
                    carried={carried === key ? together(key).size : 0}
                    onChoose={(on, upTo) => holdItem(index, on, upTo)}
                    onChange={(next) => change(items.map((one, i) => (i === index ? next : one)))}
                    onMove={(by) => move(index, by)}
                    onRemove={() => void change(items.filter((_, i) => i !== index))}
                  />
                ))}
              </DropList>
            </SortableContext>
          </Locked>
          {held.size > 0 && <ChosenItems playlist={playlist} chosen={held} onChange={change} onDone={letGo} />}
          <Locked needs="plan">
            <MoreItems playlist={playlist} onAdd={insert} />
          </Locked>
          <PlaylistActs playlist={playlist} items={items} />
        </div>
        <Only needs="plan">
          <Palette onAdd={put}>
            {carried !== null && dragged.length === 0 && <OtherPlaylists plan={draft} without={playlist.id} />}
          </Palette>
        </Only>
      </div>
      <DragOverlay>
        {dragged[0] && (
          <span className="relative block">
            <Thumb src={thumbnailOf(dragged[0])} alt="" className="h-16 w-28 outline-2 outline-dusk" />
            {dragged.length > 1 && <Together count={dragged.length} />}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}
