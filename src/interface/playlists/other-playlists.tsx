'use client';

import { useDroppable, type CollisionDetection, closestCenter, pointerWithin } from '@dnd-kit/core';
import type { Plan, Playlist } from '@/core/plan';
import { counted } from '@/interface/kit/words/format';
import { Thumb } from '@/interface/kit/content/thumb';
import { firstMedia } from '@/interface/kit/content/content';
import { thumbnailOf } from '@/interface/data/provider';

const TARGET = 'playlist-';

/** The playlist that something is held over, by the id of the place; undefined over anything else. */
export const playlistUnder = (plan: Plan, place: string | number | undefined): Playlist | undefined =>
  plan.playlists.find(({ id }) => TARGET + id === place);

/** Another playlist counts where the pointer is within it; a row counts where it is the nearest. */
export const rowsAndPlaylists: CollisionDetection = (args) => {
  const isTarget = ({ id }: { id: string | number }) => String(id).startsWith(TARGET);
  const within = pointerWithin({ ...args, droppableContainers: args.droppableContainers.filter(isTarget) });
  if (within.length > 0) return within;
  return closestCenter({ ...args, droppableContainers: args.droppableContainers.filter((one) => !isTarget(one)) });
};

/** The other playlists, over the library for as long as items are dragged: what is let go on one goes into it. */
export function OtherPlaylists({ plan, without }: { plan: Plan; without: string }) {
  const others = plan.playlists
    .filter(({ id, archived }) => id !== without && !archived)
    .sort((a, b) => a.name.localeCompare(b.name));
  return (
    <section
      aria-label="Other playlists"
      className="absolute inset-0 z-10 flex flex-col overflow-y-auto bg-sheet px-4 pt-4 pb-4"
    >
      <h2 className="pb-2 text-sm font-semibold">Into another playlist</h2>
      {others.length === 0 && <p className="text-sm text-faint">You have no other playlist yet.</p>}
      <ul>
        {others.map((playlist) => (
          <Target key={playlist.id} plan={plan} playlist={playlist} />
        ))}
      </ul>
    </section>
  );
}

function Target({ plan, playlist }: { plan: Plan; playlist: Playlist }) {
  const { setNodeRef, isOver } = useDroppable({ id: TARGET + playlist.id });
  const first = firstMedia(plan, { playlist: playlist.id });
  const file = plan.media.find(({ id }) => id === first);
  return (
    <li
      ref={setNodeRef}
      data-into={playlist.id}
      className={`flex items-center gap-2 border-b border-rule px-1 py-2 ${isOver ? 'bg-well outline-2 outline-dusk' : ''}`}
    >
      <Thumb src={file && thumbnailOf(file)} alt="" className="h-8 w-12 shrink-0" />
      <span className="min-w-0">
        <span className="block truncate text-sm font-semibold">{playlist.name}</span>
        <span className="block text-xs text-faint">{counted(playlist.items.length, 'item')}</span>
      </span>
    </li>
  );
}
