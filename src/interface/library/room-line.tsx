'use client';

import { useRoom } from '@/interface/data/queries';
import { counted, megabytes } from '@/interface/kit/words/format';

/** From this share on of what a library may hold it is said in the colour of what wants looking at. */
const NEARLY = 0.9;

/** How much room the library has: below what is in it, and above as soon as little is left. */
export function RoomLine({ above = false }: { above?: boolean }) {
  const room = useRoom();
  if (!room) return null;
  const { bytes, mostBytes, files, mostFiles, mostOfFile, onPlayers } = room;
  const nearly = bytes > mostBytes * NEARLY || files > mostFiles * NEARLY;
  if (nearly !== above) return null;
  return (
    <p className={`${above ? 'mb-3' : 'mt-8'} text-sm ${nearly ? 'text-brick' : 'text-faint'}`}>
      {megabytes(bytes)} of {megabytes(mostBytes)} used, {files} of {counted(mostFiles, 'file')}; a single file may have
      up to {megabytes(mostOfFile)}.
      {onPlayers && onPlayers.bytes < onPlayers.whole && (
        <span title="All players of the newest edition together: files are made for the size of each screen">
          {' '}
          On players: {megabytes(onPlayers.whole)} → {megabytes(onPlayers.bytes)}.
        </span>
      )}
    </p>
  );
}
