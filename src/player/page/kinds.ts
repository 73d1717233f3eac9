import type { Report } from '@/protocol/schemas';

/** What films and sounds commonly come as, of which a browser plays one at least: RFC 6381 names of H.264, VP9, AAC and MP3. */
const FILMS = ['video/mp4; codecs="avc1.42E01E"', 'video/webm; codecs="vp9"'];
const SOUNDS = ['audio/mp4; codecs="mp4a.40.2"', 'audio/mpeg'];

/** The kinds of files that this browser says it plays (HTML: `canPlayType`, which is empty for no). */
export function playedKinds(canPlay: (type: string) => string): NonNullable<Report['kinds']> {
  const some = (types: readonly string[]) => types.some((type) => canPlay(type) !== '');
  return ['image', ...(some(FILMS) ? (['video'] as const) : []), ...(some(SOUNDS) ? (['sound'] as const) : [])];
}
