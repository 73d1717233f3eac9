import type { Metadata } from 'next';
import { PlaylistsPlace } from '@/interface/playlists/playlists-place';

export const metadata: Metadata = { title: 'Playlists' };

export default function PlaylistsPage() {
  return <PlaylistsPlace />;
}
