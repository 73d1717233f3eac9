'use client';

import Link from 'next/link';
import { changed, type Item, type Playlist } from '@/core/plan';
import { Locked } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { readName } from '@/interface/forms/read-text';
import { SavedInput } from '@/interface/forms/saved-input';
import { Select } from '@/interface/kit/controls/field';
import { counted, duration } from '@/interface/kit/words/format';
import { Word } from '@/interface/kit/words/word';
import { lengthWords } from './item-name';

/** A playlist's name, how its passes go, and how long one is on the kind of screen that is looked at. */
export function PlaylistHead({
  playlist,
  lengthMs,
  items,
}: {
  playlist: Playlist;
  /** Of a pass; absent where no screen shows it. */
  lengthMs: number | undefined;
  items: readonly Item[];
}) {
  const { draft } = useNetwork('draft');
  return (
    <header className="flex flex-wrap items-end gap-x-5 md:flex-nowrap">
      <Link href="/playlists" className="shrink-0 pb-1.5 whitespace-nowrap text-tide underline underline-offset-2">
        All playlists
      </Link>
      <h1 className="sr-only">{playlist.name}</h1>
      <Locked needs="plan">
        <NameInput playlist={playlist} />
        <OrderChoice playlist={playlist} />
      </Locked>
      <p className="ml-auto shrink-0 pb-1 text-right whitespace-nowrap" data-testid="loop">
        <span className="font-code text-lg">
          {lengthMs === undefined ? lengthWords(draft, items) : duration(lengthMs)}
        </span>{' '}
        <span className="text-faint">
          a <Word of="pass">pass</Word>, {counted(items.length, 'item')}
        </span>
      </p>
    </header>
  );
}

function NameInput({ playlist }: { playlist: Playlist }) {
  const { edit } = useNetwork('edit');
  return (
    <SavedInput
      label="Name"
      of={{ kind: 'playlist', id: playlist.id, field: 'name' }}
      value={playlist.name}
      read={readName}
      save={(name) => edit(changed('playlist', playlist, { name }))}
      width="min-w-0 flex-1 max-md:order-last max-md:basis-full"
      className="!border-transparent !bg-transparent !px-1 !text-2xl font-heading font-bold hover:!border-rule aria-invalid:!border-brick"
    />
  );
}

/** Whether each pass goes as listed, or in an order of its own; or whether each item waits, as in a presentation. */
function OrderChoice({ playlist }: { playlist: Playlist }) {
  const { edit } = useNetwork('edit');
  return (
    <div className="w-52 shrink-0 pb-1 text-sm">
      <Select
        aria-label="Order"
        value={playlist.waits ? 'waits' : (playlist.order ?? 'listed')}
        onChange={({ target: { value } }) =>
          void edit(
            changed('playlist', playlist, {
              order: value === 'shuffled' ? 'shuffled' : undefined,
              waits: value === 'waits' ? true : undefined,
            }),
          )
        }
      >
        <option value="listed">as listed</option>
        <option value="shuffled">shuffled again each pass</option>
        <option value="waits">each item waits for a key or a press</option>
      </Select>
    </div>
  );
}
