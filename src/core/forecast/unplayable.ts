import type { MediaKind } from '../plan/kinds/media';
import type { Plan } from '../plan/schema';
import { programMaker } from './narrow';

/** A file that some screens are given and can't play. */
export interface Unplayable {
  readonly media: string;
  /** Ids of the screens, sorted. */
  readonly screens: readonly string[];
}

/**
 * What screens are given, to be seen or heard at any time, and can't play: by the file's id, sorted. `kindsOf` are the kinds that the
 * screens play which do not play all; screens that the plan does not have are passed over.
 */
export function unplayable(plan: Plan, kindsOf: ReadonlyMap<string, ReadonlySet<MediaKind>>): Unplayable[] {
  const kinds = new Map(plan.media.map(({ id, kind }) => [id, kind]));
  const narrow = programMaker(plan);
  const found = new Map<string, string[]>();
  for (const { id } of plan.screens) {
    const plays = kindsOf.get(id);
    if (!plays) continue;
    const { loops, music = [] } = narrow(id);
    const given = new Set(
      [...loops, ...music.flatMap((one) => (one ? [one.loop] : []))].flat().map(({ media }) => media),
    );
    for (const media of given) {
      const kind = kinds.get(media);
      if (kind && !plays.has(kind)) found.set(media, [...(found.get(media) ?? []), id]);
    }
  }
  return [...found]
    .map(([media, screens]) => ({ media, screens: screens.sort() }))
    .sort((a, b) => (a.media < b.media ? -1 : 1));
}

/** What of the ones is not among the others: a file may come to more screens that can't play it. */
export function newUnplayable(before: readonly Unplayable[], after: readonly Unplayable[]): Unplayable[] {
  const known = new Map(before.map(({ media, screens }) => [media, new Set(screens)]));
  return after.flatMap(({ media, screens }) => {
    const fresh = screens.filter((id) => !known.get(media)?.has(id));
    return fresh.length > 0 ? [{ media, screens: fresh }] : [];
  });
}
