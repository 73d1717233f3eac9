'use client';

import { itemFiles } from '@/core/forecast';
import { readDuration, type Item, type Playlist } from '@/core/plan';
import { done, type Result } from '@/core/refusal';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { SavedInput } from '@/interface/forms/saved-input';
import { contentOf } from '@/interface/kit/content/content';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { ItemLook } from './item-look';
import { hasSeconds } from './stretch';
import { itemsTo } from './use-items';

/** What is done to several items at once. */
export function ChosenItems({
  playlist,
  chosen,
  onChange,
  onDone,
}: {
  playlist: Playlist;
  /** The chosen items, by their ids. */
  chosen: ReadonlySet<string>;
  /** Saves all items as they are to be. */
  onChange: (items: readonly Item[]) => Promise<Result<unknown>>;
  onDone: () => void;
}) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const isChosen = ({ id }: Item) => id !== undefined && chosen.has(id);
  const items = playlist.items.filter(isChosen);
  const timed = items.filter((item) => hasSeconds(draft, item));
  const lengths = new Set(timed.map(({ durationMs }) => durationMs));
  const [length] = lengths;
  const names = counted(items.length, 'item');
  const give = (fields: Partial<Item>, of: (item: Item) => boolean = isChosen) =>
    onChange(playlist.items.map((item) => (of(item) ? ({ ...item, ...fields } as Item) : item)));
  const moveTo = (value: string) => {
    const target = draft.playlists.find(({ id }) => id === contentOf(value)?.playlist);
    if (!target) return;
    void edit(itemsTo(playlist, target, chosen), `${names} moved from “${playlist.name}” to “${target.name}”.`).then(
      (result) => result.ok && onDone(),
    );
  };
  return (
    <section
      aria-label="Chosen items"
      className="sticky bottom-0 z-20 mt-3 flex flex-wrap items-start gap-x-5 gap-y-2 border border-ink bg-sheet px-4 py-3"
    >
      <p className="pt-1.5 font-semibold" role="status">
        {names} chosen
      </p>
      {timed.length > 0 && (
        <span className="flex items-start gap-2 text-sm">
          <span aria-hidden className="pt-1.5 text-faint">
            Seconds
          </span>
          <SavedInput
            label={`Seconds of ${names}`}
            of={{ kind: 'playlist', id: playlist.id, field: 'chosen seconds' }}
            value={lengths.size === 1 && length !== undefined ? String(length / 1000) : ''}
            placeholder={lengths.size > 1 ? 'mixed' : 'usual'}
            inputMode="decimal"
            read={(text) => (text.trim() === '' ? done(undefined) : readDuration(text))}
            save={(durationMs) => give({ durationMs }, (item) => timed.includes(item))}
            width="w-24"
            className="text-right font-code"
          >
            s
          </SavedInput>
        </span>
      )}
      <ItemLook
        playlist={playlist.id}
        names={names}
        items={items}
        films={items.flatMap((item) => itemFiles(draft, item))}
        onChange={(look) => {
          // A nested playlist has no look of its own.
          const { when, ...own } = look;
          const isLook = Object.keys(own).length > 0;
          return isLook ? give(own, (item) => isChosen(item) && item.playlist === undefined) : give({ when });
        }}
      />
      <span className="ml-auto flex flex-wrap items-center gap-2 text-sm">
        <span className="w-52">
          <ContentPicker
            plan={draft}
            only="playlist"
            without={playlist.id}
            none="Move to a playlist…"
            aria-label="Move the chosen items to a playlist"
            value=""
            onChange={moveTo}
          />
        </span>
        <Button
          needs="plan"
          onClick={() =>
            void onChange(playlist.items.filter((item) => !isChosen(item))).then((result) => result.ok && onDone())
          }
        >
          {' '}
          Remove{' '}
        </Button>
        <Button onClick={onDone}>Clear selection</Button>
      </span>
    </section>
  );
}
