'use client';

import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  useDroppable,
  useSensor,
  useSensors,
  type Active,
  type Announcements,
  type DragEndEvent,
  type DroppableContainer,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  arrayMove,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { group } from 'd3-array';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { flushSync } from 'react-dom';
import {
  changed,
  done,
  misread,
  nameSchema,
  newEntryId,
  passesOf,
  removed,
  type Item,
  type Media,
  type Playlist,
  type Result,
  type Turn,
} from '@/core';
import { OnAir } from '@/interface/forecast/on-air';
import { thumbnailOf, useNetwork } from '@/interface/data/provider';
import { Archive, Archived } from '@/interface/kit/archive';
import { BookIt } from '@/interface/kit/book-it';
import { Locked, Only, WhyNot } from '@/interface/data/may';
import { Button } from '@/interface/kit/button';
import { ContentPicker } from '@/interface/forms/content-picker';
import { contentOf } from '@/interface/kit/content';
import { Input, Select } from '@/interface/kit/field';
import { SavedInput } from '@/interface/forms/saved-input';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { counted, duration } from '@/interface/kit/format';
import { freeName } from '@/interface/kit/free-name';
import { hasWords } from '@/interface/kit/has-words';
import { Thumb } from '@/interface/kit/thumb';
import { itemsOf } from '@/interface/kit/items-of';
import { UsedIn } from '@/interface/kit/used-in';
import { AsSeenOn } from './as-seen-on';
import { ChosenItems } from './chosen-items';
import { itemName, lengthWords } from './item-name';
import { ItemRow, Together } from './item-row';
import { LastMoveSensor } from './last-move';
import { MusicChoice } from './music-choice';
import { movedTo } from './order';
import { OtherPlaylists, playlistUnder, rowsAndPlaylists } from './other-playlists';
import { Palette } from './palette';
import { Passes } from './passes';
import { hasSeconds } from './stretch';
import { itemsTo, useItems } from './use-items';
import { Word } from '@/interface/kit/word';

const NO_TURNS: readonly Turn[] = [];

/** Leads to an item's row, as its turn in the strip was pressed. */
function focusRow(key: string | undefined): void {
  const row = document.querySelector<HTMLElement>(`[data-item="${CSS.escape(key ?? '')}"]`);
  row?.scrollIntoView({ block: 'nearest' });
  row?.querySelector<HTMLElement>('button')?.focus();
}

/** One playlist: how it goes round, its items in order as a stair through the pass, and the media to drag in. */
export function PlaylistEditor({ playlist }: { playlist: Playlist }) {
  const { draft, edit, hold } = useNetwork('draft', 'edit', 'hold');
  const router = useRouter();
  const { rows, items, change } = useItems(playlist);
  const [dragged, setDragged] = useState<readonly Media[]>([]);
  const [carried, carry] = useState<UniqueIdentifier | null>(null);
  const [line, setLine] = useState<{ readonly row: number; readonly below: boolean } | null>(null);
  const [search, setSearch] = useState('');
  const shown = rows
    .map((row, index) => ({ ...row, index }))
    .filter(({ item }) => hasWords(itemName(draft, item), search));
  const sensors = useSensors(
    useSensor(LastMoveSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );

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
  const copy = () => {
    const { id: _, ...document } = playlist;
    const own = items.map((item) => ({ ...item, id: newEntryId(Math.random) }));
    const name = freeName(playlist.name, draft.playlists);
    void edit([{ kind: 'playlist', add: { ...document, name, items: own } }], `“${name}” was made.`).then(
      (result) => result.ok && router.push(`/playlists/${result.value.ids[0]}`),
    );
  };
  const move = (index: number, by: number) => {
    const to = index + by;
    if (to >= 0 && to < items.length) void change(arrayMove([...items], index, to));
  };

  return (
    <DndContext
      id="playlist"
      sensors={sensors}
      accessibility={{ announcements }}
      collisionDetection={rowsAndPlaylists}
      onDragStart={({ active }) => {
        setDragged(filesOf(active));
        carry(active.id);
      }}
      onDragMove={(event) => {
        const to = landing(event);
        setLine((now) => (now?.row === to?.row && now?.below === to?.below ? now : to));
      }}
      onDragEnd={onDragEnd}
      onDragCancel={leave}
    >
      <div className="flex h-full min-h-0 max-md:h-auto max-md:flex-col">
        <div className="min-w-0 flex-1 scroll-pb-24 overflow-y-auto px-3 py-4 sm:px-6">
          <header className="flex flex-wrap items-end gap-x-5 md:flex-nowrap">
            <Link
              href="/playlists"
              className="shrink-0 pb-1.5 whitespace-nowrap text-tide underline underline-offset-2"
            >
              All playlists
            </Link>
            <h1 className="sr-only">{playlist.name}</h1>
            <Locked needs="plan">
              <NameInput playlist={playlist} />
              <OrderChoice playlist={playlist} />
            </Locked>
            <p className="ml-auto shrink-0 pb-1 text-right whitespace-nowrap" data-testid="loop">
              <span className="font-code text-lg">{pass ? duration(pass.lengthMs) : lengthWords(draft, items)}</span>{' '}
              <span className="text-faint">
                a <Word of="pass">pass</Word>, {counted(items.length, 'item')}
              </span>
            </p>
          </header>
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
          <section className="mt-6">
            <h2 className="text-base">On air</h2>
            <OnAir kind="playlist" id={playlist.id} />
          </section>
          <section aria-label="Used in" className="mt-6">
            <h2 className="text-base">Used in</h2>
            <UsedIn plan={draft} kind="playlist" object={playlist} />
          </section>
          <p className="mt-6 flex items-center gap-5">
            <BookIt content={`playlist:${playlist.id}`} />
            <Button needs="plan" onClick={copy}>
              Copy this playlist
            </Button>
            <span className="text-sm">
              As a file:{' '}
              {(['m3u8', 'xspf'] as const).map((as) => (
                <a
                  key={as}
                  href={`/api/playlists/${encodeURIComponent(playlist.id)}?as=${as}`}
                  download
                  className="mr-3 inline-block py-1 text-tide underline underline-offset-2"
                >
                  {as.toUpperCase()}
                </a>
              ))}
            </span>
          </p>
          <p className="mt-10 flex flex-wrap gap-5">
            <Archive kind="playlist" object={playlist} />
            <Button
              needs="plan"
              variant="grave"
              onClick={() =>
                void edit(
                  [removed('playlist', playlist)],
                  `“${playlist.name}” was deleted. Ctrl Z brings it back.`,
                ).then((result) => result.ok && router.push('/playlists'))
              }
            >
              Delete this playlist
            </Button>
          </p>
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

/** Which items are chosen for what is done to several at once; with Shift from the last that was chosen on. Those that are gone are none. */
function useChosen(rows: readonly { readonly key: string }[]) {
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const last = useRef(0);
  const choose = (index: number, on: boolean, upTo: boolean) => {
    const [from, to] = upTo ? [Math.min(last.current, index), Math.max(last.current, index)] : [index, index];
    last.current = index;
    const next = new Set(keys);
    for (const { key } of rows.slice(from, to + 1)) {
      if (on) next.add(key);
      else next.delete(key);
    }
    setKeys(next);
  };
  const chosen = new Set(rows.map(({ key }) => key).filter((key) => keys.has(key)));
  return { chosen, choose, letGo: () => setKeys(new Set()) };
}

/** The files from the palette that are dragged; none for an item of the list. */
const filesOf = ({ data }: Active): readonly Media[] =>
  (data.current as { files?: readonly Media[] } | undefined)?.files ?? [];

function DropList({ empty, children }: { empty: boolean; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'empty', disabled: !empty });
  return (
    <div
      ref={setNodeRef}
      className={`mt-3 min-h-24 border-y border-rule ${isOver ? 'bg-well' : ''}`}
      data-testid="items"
    >
      {empty ? (
        <p className="py-8 text-center text-faint">Drag files here from the right, or press + on one.</p>
      ) : (
        <ol aria-label="Items">{children}</ol>
      )}
    </div>
  );
}

function NameInput({ playlist }: { playlist: Playlist }) {
  const { edit } = useNetwork('edit');
  return (
    <SavedInput
      label="Name"
      of={{ kind: 'playlist', id: playlist.id, field: 'name' }}
      value={playlist.name}
      read={(text) => {
        const name = nameSchema.safeParse(text.trim());
        return name.success ? done(name.data) : misread(name.error.issues[0]?.message ?? 'Write a name.');
      }}
      save={(name) => edit(changed('playlist', playlist, { name }))}
      width="min-w-0 flex-1 max-md:order-last max-md:basis-full"
      className="!border-transparent !bg-transparent !px-1 !text-2xl font-heading font-bold hover:!border-rule aria-invalid:!border-brick"
    />
  );
}

/** Whether each pass goes as listed, or in an order of its own. */
function OrderChoice({ playlist }: { playlist: Playlist }) {
  const { edit } = useNetwork('edit');
  return (
    <div className="w-44 shrink-0 pb-1 text-sm">
      <Select
        aria-label="Order"
        value={playlist.order ?? 'listed'}
        onChange={(event) =>
          void edit(
            changed('playlist', playlist, { order: event.target.value === 'shuffled' ? 'shuffled' : undefined }),
          )
        }
      >
        <option value="listed">as listed</option>
        <option value="shuffled">shuffled again each pass</option>
      </Select>
    </div>
  );
}

/** Items other than a single file: another playlist, or all media that match. */
function MoreItems({ playlist, onAdd }: { playlist: Playlist; onAdd: (item: Item) => Promise<Result<unknown>> }) {
  const { draft } = useNetwork('draft');
  const { values, set, clear, draft: kept } = useKept(`playlist ${playlist.id} collect`, { rule: '' });
  const { rule } = values;
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3 text-sm">
      <div className="w-full sm:w-56">
        <ContentPicker
          plan={draft}
          only="playlist"
          without={playlist.id}
          none="Add a playlist…"
          aria-label="Add a playlist"
          value=""
          onChange={(value) => {
            const content = contentOf(value);
            if (content?.playlist !== undefined) void onAdd({ playlist: content.playlist });
          }}
        />
      </div>
      <form
        className="flex flex-wrap items-center gap-2 max-sm:w-full"
        onSubmit={(event) => {
          event.preventDefault();
          if (rule.trim() === '') return;
          void onAdd({ collect: rule.trim(), order: 'newest' }).then((result) => result.ok && clear());
        }}
      >
        <Input
          aria-label="Collect all files that match"
          placeholder="all files tagged, e.g. offer and not winter"
          value={rule}
          onChange={(event) => set({ rule: event.target.value })}
          className="sm:!w-72"
        />
        <Button needs="plan" type="submit">
          Collect
        </Button>
        <DraftOffer draft={kept} />
      </form>
    </div>
  );
}
