import type { Metadata } from 'next';
import { PlaylistById } from '@/interface/playlists/playlist-page';

export const metadata: Metadata = { title: 'Playlist' };

export default async function PlaylistPage({ params }: { params: Promise<{ id: string }> }) {
  return <PlaylistById id={(await params).id} />;
}
