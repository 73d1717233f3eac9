'use client';

import Link from 'next/link';
import { useNetwork } from '@/interface/data/provider';
import { Empty } from '@/interface/kit/controls/empty';
import { PlaylistEditor } from './playlist-editor';

export function PlaylistById({ id }: { id: string }) {
  const { draft } = useNetwork('draft');
  const playlist = draft.playlists.find((one) => one.id === id);
  if (playlist) return <PlaylistEditor key={playlist.id} playlist={playlist} />;
  return (
    <Empty
      title="No such playlist"
      action={
        <Link href="/playlists" className="text-tide underline">
          See all playlists
        </Link>
      }
    >
      It may have been removed, or renamed in the address.
    </Empty>
  );
}
