import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { MOST_ENTRIES } from '../../plan/kinds/playlist';
import type { Plan, Playlist } from '../../plan/schema';
import { misread, type Result } from '../../refusal';
import { lineOf } from '../../text';
import { bounded, fileName, fragment, tracksOf, type Entry, type Listed } from './tracks';

/** XSPF version 1 (https://www.xspf.org/spec): a playlist of tracks as XML, lengths in milliseconds. */

const NAMESPACE = 'http://xspf.org/ns/0/';

/** A playlist's files as an XSPF file. Files are named by their ids. */
export function writeXspf(plan: Plan, playlist: Playlist): string {
  const track = tracksOf(plan, playlist).map(({ file, durationMs, clip }) => ({
    location: `${encodeURIComponent(fileName(file))}${fragment(clip)}`,
    title: lineOf(file.name, 200),
    duration: durationMs,
  }));
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
  });
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    playlist: { '@version': '1', '@xmlns': NAMESPACE, title: lineOf(playlist.name, 200), trackList: { track } },
  });
}

/** Characters of a file, at most: a playlist of 5 000 entries has less. */
const MOST_TEXT = 8_000_000;

/** Reads XSPF; what stands outside it is never fetched, and entities are not unfolded. Refused with a sentence for anything else. */
export function readXspf(text: string): Result<Listed> {
  if (text.length > MOST_TEXT) return misread('This playlist is larger than 8 MB. Split it.');
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return misread('This playlist has definitions of its own (DOCTYPE). Save it without them.');
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    return misread(`This isn’t XSPF: line ${valid.err.line} is broken. Export the playlist again, then read it.`);
  const parser = new XMLParser({
    ...{ ignoreAttributes: true, removeNSPrefix: true, parseTagValue: false, trimValues: true },
    isArray: (name: string) => ['track', 'location', 'identifier'].includes(name),
  });
  const read = parser.parse(text) as { readonly playlist?: Loose };
  const list = asObject(asObject(read).playlist);
  if (!Object.hasOwn(list, 'trackList')) return misread('This isn’t XSPF: it has no list of tracks.');
  const tracks = asObject(list.trackList).track;
  const entries = (Array.isArray(tracks) ? tracks : []).flatMap((one, i): Entry[] => {
    const track = asObject(one);
    const title = textOf(track.title);
    const location = firstOf(track.location) ?? firstOf(track.identifier) ?? title;
    const ms = Number(textOf(track.duration) ?? NaN);
    return location === null
      ? []
      : [{ location, title, durationMs: Number.isInteger(ms) && ms > 0 ? ms : null, place: `track ${i + 1}` }];
  });
  return bounded({ title: textOf(list.title), entries }, MOST_ENTRIES);
}

type Loose = Readonly<Record<string, unknown>>;

const asObject = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
const textOf = (value: unknown): string | null =>
  typeof value === 'string' && value.trim() !== '' ? value.trim() : null;
const firstOf = (value: unknown): string | null => (Array.isArray(value) ? textOf(value[0]) : textOf(value));
