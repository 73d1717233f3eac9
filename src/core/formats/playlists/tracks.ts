import { itemFiles } from '../../forecast/durations';
import type { Clip } from '../../plan/clips';
import { knownItem } from '../../plan/known';
import type { Item, Media, Plan, Playlist } from '../../plan/schema';
import { done, misread, type Result } from '../../refusal';

/** Playlists as other programs know them: files one after the other, each with a length. */

/** A file in its turn. */
export interface Track {
  readonly file: Media;
  readonly durationMs: number;
  /** What of a film is played; absent: all of it. */
  readonly clip?: Clip | undefined;
}

/** A file with more entries than this isn't a playlist. */
export const MOST_TRACKS = 50_000;

/**
 * The files of a playlist as listed: nested playlists and collecting rules become the files that they hold now, whatever the screens and
 * the time. Sounds are among them.
 */
export function tracksOf(plan: Plan, playlist: Playlist): Track[] {
  const usual = plan.network.defaultDurationMs ?? 10_000;
  const sounds = new Map(
    plan.media.flatMap((file) => (file.kind === 'sound' && !file.archived ? [[file.id, file]] : [])),
  );
  const within = (items: readonly Item[], above: ReadonlySet<string>): Track[] =>
    items.flatMap((item): Track[] => {
      const what = knownItem(item);
      if (what.kind === 'playlist') {
        const nested = above.has(what.id)
          ? undefined
          : plan.playlists.find((one) => one.id === what.id && !one.archived);
        return nested ? within(nested.items, new Set([...above, what.id])) : [];
      }
      const sound = what.kind === 'media' ? sounds.get(what.id) : undefined;
      return (sound ? [sound] : itemFiles(plan, item)).map((file) => ({
        file,
        durationMs: (item.clip && item.clip[1] - item.clip[0]) ?? item.durationMs ?? file.durationMs ?? usual,
        ...(item.clip ? { clip: item.clip } : {}),
      }));
    });
  return within(playlist.items, new Set([playlist.id])).slice(0, MOST_TRACKS);
}

const ENDINGS: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/avif': 'avif',
  'image/gif': 'gif',
  'video/mp4': 'mp4',
  'video/webm': 'webm',
  'audio/mp4': 'm4a',
};

/** How a file is called outside: its id with an ending. */
export function fileName({ id, type }: Media): string {
  const ending = type === undefined ? undefined : ENDINGS[type];
  return ending === undefined ? id : `${id}.${ending}`;
}

/** What of a film is played, as W3C's Media Fragments URI 1.0 has it, section 4.2.1: `#t=0.5,2.5`, in seconds. */
export const fragment = (clip: Clip | undefined): string => (clip ? `#t=${clip[0] / 1000},${clip[1] / 1000}` : '');

/** An entry of a playlist file: what it names, and how long. */
export interface Entry {
  /** As the file has it: a file name, a path, an address. It is never fetched. */
  readonly location: string;
  readonly title: string | null;
  readonly durationMs: number | null;
  /** Its place: a line, or which track it is. */
  readonly place: string;
}

/** A playlist file as it was read. */
export interface Listed {
  readonly title: string | null;
  readonly entries: readonly Entry[];
}

/** Items made of entries, and those for which the library has no file. */
export interface Matched {
  readonly items: readonly Item[];
  readonly missing: readonly Entry[];
}

/** The last part of a path or address, without its query, fragment and ending. */
function nameIn(location: string): string {
  const path = location.replace(/[?#].*$/s, '').replace(/\\/g, '/');
  const last = path.slice(path.lastIndexOf('/') + 1);
  return decoded(last).replace(/\.[^.]*$/, '');
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** A name as the library would call the file: without underscores, in small letters. */
const plain = (name: string) =>
  name
    .replace(/[_\s]+/g, ' ')
    .trim()
    .toLowerCase();

/** A clip of a location's fragment, `#t=1.5,4`; undefined for none. */
function clipIn(location: string): Clip | undefined {
  const [, from = '', to = ''] = /#(?:[^#]*&)?t=(?:npt:)?(\d+(?:\.\d+)?)?,(\d+(?:\.\d+)?)(?:&|$)/.exec(location) ?? [];
  const clip = [Math.round(Number(from) * 1000), Math.round(Number(to) * 1000)] as const;
  return to !== '' && clip[0] < clip[1] ? clip : undefined;
}

/**
 * Finds the library's files for entries: by their ids first, then by their names, the newest of several; by the file's name before the title.
 * A picture lasts as long as the entry says, a film as long as it lasts, or its clip.
 */
export function matchEntries(entries: readonly Entry[], media: readonly Media[]): Matched {
  const ids = new Map(media.map((file) => [file.id, file]));
  const names = new Map(
    [...media].sort((a, b) => Date.parse(a.added) - Date.parse(b.added)).map((file) => [plain(file.name), file]),
  );
  const items: Item[] = [];
  const missing: Entry[] = [];
  for (const entry of entries) {
    const name = nameIn(entry.location);
    const file =
      ids.get(name) ?? names.get(plain(name)) ?? (entry.title === null ? undefined : names.get(plain(entry.title)));
    if (file) items.push(itemOf(file, entry));
    else missing.push(entry);
  }
  return { items, missing };
}

const SHORTEST_MS = 100;
const LONGEST_MS = 86_400_000;

function itemOf(file: Media, { location, durationMs }: Entry): Item {
  if (file.kind === 'image')
    return durationMs !== null && durationMs >= SHORTEST_MS && durationMs <= LONGEST_MS
      ? { media: file.id, durationMs }
      : { media: file.id };
  const clip = file.kind === 'video' ? clipIn(location) : undefined;
  return clip && clip[1] <= (file.durationMs ?? Infinity) ? { media: file.id, clip } : { media: file.id };
}

/** Refuses a file of more entries than a playlist has. */
export function bounded(listed: Listed, most: number): Result<Listed> {
  if (listed.entries.length === 0) return misread('This playlist has no entries.');
  return listed.entries.length > most
    ? misread(`This playlist has ${listed.entries.length} entries. At most ${most} are read, so split it.`)
    : done(listed);
}
