'use client';

import { useId, useState } from 'react';
import { changed, type Media, type Playlist } from '@/core/plan';
import { refused, type Result } from '@/core/refusal';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { itemsOf } from '@/interface/kit/content/items-of';

/** Puts files into a playlist that there is, or one that is made by its name. `filesOf` answers with them when it comes to it. */
export function PutIn({
  filesOf,
  ready = true,
  act = 'Put them in',
}: {
  filesOf: () => Promise<Result<readonly Media[]>>;
  ready?: boolean;
  act?: string;
}) {
  const { draft, edit, hold, notify } = useNetwork('draft', 'edit', 'hold', 'notify');
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();

  const put = async (): Promise<Result<unknown>> => {
    const wanted = name.trim();
    if (wanted === '') return refused([{ path: '', message: 'Name a playlist: an existing one, or a new one.' }]);
    const files = await filesOf();
    if (!files.ok) return files;
    if (files.value.length === 0)
      return refused([{ path: '', message: 'None of these files was added to the library.' }]);
    hold(files.value);
    const playlist = draft.playlists.find((one) => !one.archived && one.name.toLowerCase() === wanted.toLowerCase());
    const said = `${counted(files.value.length, 'file')} went into “${playlist?.name ?? wanted}”.`;
    return playlist
      ? edit(changed('playlist', playlist, { items: [...playlist.items, ...itemsOf(files.value)] }), said)
      : edit([{ kind: 'playlist', add: { name: wanted, items: itemsOf(files.value) } }], said);
  };
  return (
    <form
      noValidate
      className="flex flex-wrap items-center gap-x-3 gap-y-1"
      onSubmit={(event) => {
        event.preventDefault();
        void put().then((result) => {
          setWrong(result.ok ? null : result.message);
          if (result.ok) setName('');
          else if (result.status === 0) notify(result.message);
        });
      }}
    >
      <div className="min-w-48 max-w-72 flex-1">
        <Input
          aria-label="Put them into the playlist"
          placeholder="Put into a playlist, or a new one"
          autoComplete="off"
          list={id}
          value={name}
          invalid={wrong !== null}
          onChange={(event) => {
            setName(event.target.value);
            setWrong(null);
          }}
        />
        <datalist id={id}>
          {draft.playlists
            .filter((one) => !one.archived)
            .map((one) => (
              <option key={one.id} value={one.name} />
            ))}
        </datalist>
      </div>
      <Button needs="plan" type="submit" disabled={!ready}>
        {act}
      </Button>
      {wrong ? (
        <span role="alert" className="text-sm text-brick">
          {wrong}
        </span>
      ) : (
        !ready && <span className="text-sm text-faint">as soon as they are all ready</span>
      )}
    </form>
  );
}

/** How a playlist becomes one that has files at its end, or them alone. */
export const withFiles = (playlist: Playlist, files: readonly Media[], instead: boolean) =>
  changed('playlist', playlist, { items: [...(instead ? [] : playlist.items), ...itemsOf(files)] });
