import { SECOND } from '../instant';
import { done, misread, type Result } from '../refusal';
import { readDuration } from './duration';
import type { Media } from './kinds/media';
import { durationWords } from './say';

/** Where a film is cut, in milliseconds of its own: its in point and its out point. */
export type Clip = readonly [begin: number, end: number];

/** What of a file a clip needs to know. */
type Film = Pick<Media, 'kind' | 'name'> & { readonly durationMs?: number | undefined };

/** Why a clip can't be cut from a file; null where it can. */
export function clipProblem([, end]: Clip, { kind, name, durationMs }: Film): string | null {
  if (kind !== 'video') return `“${name}” isn’t a video, and only a video has clips.`;
  if (durationMs === undefined || end <= durationMs) return null;
  return `“${name}” ends at ${durationWords(durationMs)}. End the clip there or before.`;
}

/**
 * A clip as people write it: "5–20", "0:05 to 1:10", "5 s - 20 s". Empty is the whole film. Refused with a sentence where it is none, or
 * goes beyond the film.
 */
export function readClip(text: string, film: Film): Result<Clip | undefined> {
  if (text.trim() === '') return done(undefined);
  const [first, last, more] = text.split(/\s*(?:–|—|-|\bto\b)\s*/);
  if (first === undefined || last === undefined || more !== undefined)
    return misread('Write where the clip begins and ends in the video, e.g. 5–20, or 0:05 to 1:10.');
  const begin = /^0+(?:[:.]0+)*\s*s?$/.test(first.trim()) ? done(0) : readDuration(first);
  if (!begin.ok) return begin;
  const end = readDuration(last);
  if (!end.ok) return end;
  if (end.value <= begin.value) return misread('A clip must end after it begins.');
  const problem = clipProblem([begin.value, end.value], film);
  return problem === null ? done([begin.value, end.value]) : misread(problem);
}

/** "5–20", as `readClip` reads it: in seconds. */
export const clipText = ([begin, end]: Clip): string => `${begin / SECOND}–${end / SECOND}`;

type Loose = Readonly<Record<string, unknown>>;

/** The clips of a playlist's document that can't be cut, by their places; of files that are not known nothing is said. */
export function clipProblems(
  document: unknown,
  fileOf: (id: string) => Film | undefined,
): { readonly path: readonly (string | number)[]; readonly message: string }[] {
  const items = (document as { readonly items?: unknown } | null)?.items;
  if (!Array.isArray(items)) return [];
  return (items as readonly (Loose | null)[]).flatMap((item, i) => {
    const clip = item?.clip;
    const file = typeof item?.media === 'string' ? fileOf(item.media) : undefined;
    if (!file || !Array.isArray(clip) || typeof clip[1] !== 'number') return [];
    const message = clipProblem(clip as unknown as Clip, file);
    return message === null ? [] : [{ path: ['items', i, 'clip'], message }];
  });
}
