import { never } from '../refusal';
import { CODEC_NAMES, CONTROLS, CONTROL_WORDS, type Codec, type Control, type Profile } from '../plan/kinds/profile';
import type { Media, MediaKind } from '../plan/kinds/media';
import type { Plan } from '../plan/schema';

/** In pixels. */
interface Size {
  readonly width: number;
  readonly height: number;
}

/** What a screen can play. A field that is absent isn't known, and counts as possible. */
export interface Abilities {
  readonly plays?: readonly string[] | undefined;
  readonly codecs?: readonly string[] | undefined;
  /** The largest picture and video. */
  readonly most?: Size | undefined;
}

/** What a player told of itself; null or absent: nothing. */
export interface Told {
  readonly kinds?: readonly MediaKind[] | null | undefined;
  readonly codecs?: readonly string[] | null | undefined;
  readonly can?: readonly string[] | null | undefined;
}

/** What a screen can play by its profile, corrected by what its player told. */
export function abilitiesOf(profile: Profile | undefined, told: Told | undefined): Abilities {
  return {
    plays: told?.kinds ?? (profile?.sound === false ? silent(profile.plays) : profile?.plays),
    codecs: told?.codecs ?? profile?.codecs,
    most: profile?.most,
  };
}

/** What a display plays that has no loudspeakers. */
const silent = (plays: Profile['plays'] = ['image', 'video', 'page']) => plays.filter((kind) => kind !== 'sound');

/** The screens of a plan of which it is known that they can't play everything, and what they can. */
export function abilitiesIn(plan: Plan, told: ReadonlyMap<string, Told> = new Map()): ReadonlyMap<string, Abilities> {
  const profiles = new Map(plan.profiles.map((profile) => [profile.id, profile]));
  return new Map(
    plan.screens.flatMap(({ id, profile }) => {
      const known = profiles.get(profile ?? '');
      return known || told.has(id) ? [[id, abilitiesOf(known, told.get(id))] as const] : [];
    }),
  );
}

/** What can be done to a screen from afar: by its player, or before it told by its profile; null if neither says. */
export function controlsOf(
  { lacks }: { readonly lacks?: readonly Control[] | null | undefined },
  told: Told | undefined,
): readonly string[] | null {
  if (told?.can) return told.can;
  return lacks ? CONTROLS.filter((one) => !lacks.includes(one)) : null;
}

/** Why a screen can't play a file. */
export type CantPlay = 'kind' | 'codec' | 'size';

/** A file is made smaller for a screen where its sides shrink to this share or less: one nearly as large as the file would save nothing. */
export const REDUCED_BELOW = 0.9;

/**
 * Why a screen can't play a file, null if it can. A film that is larger than the screen is made smaller for it, and then is H.264;
 * with `isExact` it is given as it is.
 */
export function cantPlay(
  file: Pick<Media, 'kind' | 'width' | 'height' | 'codec'>,
  { width, height }: Size,
  { plays, codecs, most }: Abilities,
  isExact: boolean,
): CantPlay | null {
  if (plays && !plays.includes(file.kind)) return 'kind';
  if (file.kind === 'sound' || file.width === undefined || file.height === undefined) return null;
  const scale = Math.max(width / file.width, height / file.height);
  const isReduced = !isExact && scale <= REDUCED_BELOW;
  const codec = isReduced ? 'h264' : file.codec;
  if (file.kind === 'video' && codecs && codec !== undefined && !codecs.includes(codec)) return 'codec';
  const factor = isReduced ? scale : 1;
  const isTooLarge = most && (file.width * factor > most.width + 1 || file.height * factor > most.height + 1);
  return isTooLarge ? 'size' : null;
}

/** Why it can't, after a screen's name: "plays no videos". */
export function cantPlayWords(reason: CantPlay, file: Pick<Media, 'kind' | 'codec'> | undefined): string {
  switch (reason) {
    case 'kind':
      return file?.kind === 'sound' ? 'plays no sound' : `plays no ${file?.kind === 'video' ? 'videos' : 'pictures'}`;
    case 'codec':
      return `can’t play videos in ${codecName(file?.codec ?? '')}`;
    case 'size':
      return `can’t play ${file?.kind === 'video' ? 'videos' : 'pictures'} as large as this`;
    default:
      return never(reason);
  }
}

/** A codec as people write it. */
export const codecName = (codec: string): string =>
  Object.hasOwn(CODEC_NAMES, codec) ? CODEC_NAMES[codec as Codec] : codec;

const KINDS_PLAYED = [
  ['image', 'pictures'],
  ['video', 'videos'],
  ['sound', 'sound'],
] as const;

/** Where a player told otherwise than its profile: a sentence each. */
export function corrections(profile: Profile | undefined, told: Told | undefined): string[] {
  if (!profile || !told) return [];
  const sentences: string[] = [];
  const tell = (words: string, says: boolean, written: boolean) => {
    if (says !== written) sentences.push(`The player says that it ${says ? 'can' : 'can’t'} ${words}.`);
  };
  if (told.kinds && profile.plays)
    for (const [kind, words] of KINDS_PLAYED)
      tell(`play ${words}`, told.kinds.includes(kind), profile.plays.includes(kind));
  if (told.codecs && profile.codecs)
    for (const codec of new Set([...told.codecs, ...profile.codecs]))
      tell(
        `play ${codecName(codec)}`,
        told.codecs.includes(codec),
        profile.codecs.some((one) => one === codec),
      );
  if (told.can && profile.lacks)
    for (const control of CONTROLS)
      tell(`do this: ${CONTROL_WORDS[control]}`, told.can.includes(control), !profile.lacks.includes(control));
  return sentences;
}
