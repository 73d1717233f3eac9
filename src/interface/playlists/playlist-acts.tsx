'use client';

import { useRouter } from 'next/navigation';
import { newEntryId, removed, type Item, type Playlist } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { OnAir } from '@/interface/forecast/on-air';
import { Archive } from '@/interface/kit/content/archive';
import { BookIt } from '@/interface/kit/content/book-it';
import { Button } from '@/interface/kit/controls/button';
import { freeName } from '@/interface/kit/words/free-name';
import { UsedIn } from '@/interface/kit/content/used-in';

/** Where a playlist is on air and used; and what is done with it as a whole: booked, copied, saved as a file, archived, deleted. */
export function PlaylistActs({ playlist, items }: { playlist: Playlist; items: readonly Item[] }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const router = useRouter();
  const copy = () => {
    const { id: _, ...document } = playlist;
    const own = items.map((item) => ({ ...item, id: newEntryId(Math.random) }));
    const name = freeName(playlist.name, draft.playlists);
    void edit([{ kind: 'playlist', add: { ...document, name, items: own } }], `“${name}” was made.`).then(
      (result) => result.ok && router.push(`/playlists/${result.value.ids[0]}`),
    );
  };
  return (
    <>
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
            void edit([removed('playlist', playlist)], `“${playlist.name}” was deleted. Ctrl Z brings it back.`).then(
              (result) => result.ok && router.push('/playlists'),
            )
          }
        >
          Delete this playlist
        </Button>
      </p>
    </>
  );
}
