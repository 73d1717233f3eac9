'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import * as z from 'zod';
import { nameSchema, type Plan, type Playlist } from '@/core/plan';
import { lengthWords } from './item-name';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { Input, SearchField } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { hasWords } from '@/interface/kit/words/has-words';
import { Filmstrip } from './filmstrip';
import { ReadPlaylist } from './read-playlist';

const newPlaylistSchema = z.object({ name: nameSchema });

/** All playlists, each as the strip of time that it is. */
export function PlaylistsPlace() {
  const { draft, edit } = useNetwork('draft', 'edit');
  const router = useRouter();
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(newPlaylistSchema),
    defaultValues: { name: '' },
  });
  const { errors, isSubmitting } = formState;
  const [search, setSearch] = useState('');
  const [playlists, archived] = useMemo(() => {
    const all = draft.playlists
      .filter(({ name }) => hasWords(name, search))
      .sort((a, b) => a.name.localeCompare(b.name));
    return [all.filter((one) => !one.archived), all.filter((one) => one.archived)];
  }, [draft.playlists, search]);
  return (
    <div className="px-3 pb-8 sm:px-6">
      <form
        noValidate
        className="sticky top-0 z-10 flex flex-wrap items-center gap-3 bg-paper py-3"
        onSubmit={(event) =>
          void handleSubmit(async ({ name }) => {
            const result = await edit([{ kind: 'playlist', add: { name, items: [] } }]);
            if (result.ok) router.push(`/playlists/${result.value.ids[0]}`);
          })(event)
        }
      >
        <h1 className="sr-only">Playlists</h1>
        {draft.playlists.length > 0 && (
          <SearchField
            label="Find a playlist"
            placeholder="Find a playlist"
            value={search}
            onChange={setSearch}
            className="w-full sm:mr-auto sm:w-72"
          />
        )}
        <div className="w-full sm:w-72">
          <Input
            aria-label="Name of a new playlist"
            placeholder="Name of a new playlist"
            invalid={!!errors.name}
            {...register('name')}
          />
        </div>
        <Button needs="plan" variant="main" type="submit" disabled={isSubmitting}>
          Make playlist
        </Button>
        <ReadPlaylist />
        {errors.name && (
          <p role="alert" className="text-sm text-brick">
            {errors.name.message}
          </p>
        )}
      </form>
      {draft.playlists.length === 0 ? (
        <Empty title="No playlists yet">
          A playlist is a loop of pictures and videos. Type a name above, then drag files into it.
        </Empty>
      ) : playlists.length + archived.length === 0 ? (
        <p role="status" className="py-4 text-faint">
          No playlist has “{search.trim()}” in its name.
        </p>
      ) : (
        <Playlists plan={draft} playlists={playlists} label="Playlists" />
      )}
      {archived.length > 0 && (
        <details className="mt-6" open={search.trim() !== '' || undefined}>
          <summary className="inline-block cursor-pointer py-1 text-faint">
            {counted(archived.length, 'archived playlist')}
          </summary>
          <Playlists plan={draft} playlists={archived} label="Archived playlists" />
        </details>
      )}
    </div>
  );
}

function Playlists({ plan, playlists, label }: { plan: Plan; playlists: readonly Playlist[]; label: string }) {
  return (
    <ul aria-label={label} className="divide-y divide-rule border-y border-rule">
      {playlists.map(({ id, name, items }) => (
        <li key={id}>
          <Link
            href={`/playlists/${id}`}
            className="grid grid-cols-[1fr_auto] items-center gap-x-5 gap-y-1 py-2.5 *:last:col-span-2 hover:bg-well md:grid-cols-[16rem_6rem_1fr] md:*:last:col-span-1"
          >
            <span>
              <span className="block font-semibold">{name}</span>
              <span className="text-sm text-faint">{counted(items.length, 'item')}</span>
            </span>
            <span className="font-code text-sm">{lengthWords(plan, items)}</span>
            <Filmstrip plan={plan} items={items} />
          </Link>
        </li>
      ))}
    </ul>
  );
}
