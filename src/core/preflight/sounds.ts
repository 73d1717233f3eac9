import type { Contest } from '../forecast';
import type { Interval } from '../when';

/** A playlist whose music plays while a film of it sounds. */
export interface SoundOver {
  readonly playlist: string;
  readonly film: string;
  readonly times: readonly Interval[];
}

/** Where music and the sound of films are to be heard at once, on screens that see the same. */
export function soundsAtOnce({ group: { program, segments } }: Contest): SoundOver[] {
  const found: SoundOver[] = [];
  program.loops.forEach((loop, i) => {
    if (!program.music?.[i]) return;
    const playlist = loop[0]?.through?.[0];
    const times = segments.filter((one) => one.loop === i).map(({ from, to }): Interval => [from, to]);
    if (playlist === undefined || times.length === 0) return;
    for (const film of new Set(loop.flatMap(({ volume, media }) => (volume === undefined ? [] : (media ?? [])))))
      found.push({ playlist, film, times });
  });
  return found;
}
