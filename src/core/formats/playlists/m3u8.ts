import type { Plan, Playlist } from '../../plan/schema';
import { misread, type Result } from '../../refusal';
import { lineOf } from '../../text';
import { MOST_ENTRIES } from '../../plan/kinds/playlist';
import { bounded, fileName, fragment, tracksOf, type Entry, type Listed } from './tracks';

/**
 * M3U in UTF-8 with lengths and titles (`#EXTM3U`, `#EXTINF`, `#PLAYLIST`): common practice, no source but RFC 8216 section 4, which takes
 * its first lines over and says of the encoding that it is UTF-8 without a byte order mark.
 */

/** A playlist's files as an M3U8 file. Files are named by their ids. */
export function writeM3u8(plan: Plan, playlist: Playlist): string {
  const lines = tracksOf(plan, playlist).flatMap(({ file, durationMs, clip }) => [
    `#EXTINF:${durationMs / 1000},${lineOf(file.name, 200)}`,
    `${fileName(file)}${fragment(clip)}`,
  ]);
  return ['#EXTM3U', `#PLAYLIST:${lineOf(playlist.name, 200)}`, ...lines, ''].join('\n');
}

/** Reads M3U, with or without lengths. Refused with a sentence where it is the list of a stream, or names nothing. */
export function readM3u8(text: string): Result<Listed> {
  const entries: Entry[] = [];
  let title: string | null = null;
  let next: Pick<Entry, 'title' | 'durationMs'> = { title: null, durationMs: null };
  for (const [i, raw] of text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .entries()) {
    const line = raw.trim();
    if (line === '') continue;
    if (/^#EXT-X-/i.test(line)) return misread('This lists the parts of a stream (HLS). Choose a playlist of files.');
    const [, name] = /^#PLAYLIST:\s*(.+)$/i.exec(line) ?? [];
    if (name !== undefined) title = name;
    const [, seconds, said] = /^#EXTINF:\s*(-?\d+(?:\.\d+)?)[^,]*,?(.*)$/i.exec(line) ?? [];
    if (seconds !== undefined)
      next = {
        title: said?.trim() ? said.trim() : null,
        durationMs: Number(seconds) > 0 ? Math.round(Number(seconds) * 1000) : null,
      };
    if (line.startsWith('#')) continue;
    entries.push({ location: line, ...next, place: `line ${i + 1}` });
    next = { title: null, durationMs: null };
  }
  return bounded({ title, entries }, MOST_ENTRIES);
}
