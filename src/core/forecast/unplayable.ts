import type { Plan } from '../plan/schema';
import { cantPlay, type Abilities, type CantPlay } from '../profiles/abilities';
import type { LoopItem } from './loop';
import { programMaker } from './narrow';
import type { ScreenProgram } from './program';

/** A file that some screens are given and can't play. */
export interface Unplayable {
  readonly media: string;
  readonly reason: CantPlay;
  /** Ids of the screens, sorted. */
  readonly screens: readonly string[];
}

/**
 * What screens are given, to be seen or heard at any time, and can't play: by the file's id, sorted. `abilities` has the screens that do
 * not play everything; screens that the plan does not have are passed over.
 */
export function unplayable(plan: Plan, abilities: ReadonlyMap<string, Abilities>): Unplayable[] {
  if (abilities.size === 0) return [];
  const files = new Map(plan.media.map((file) => [file.id, file]));
  const narrow = programMaker(plan);
  const givenBy = new Map<ScreenProgram, readonly FileItem[]>();
  const found = new Map<string, { media: string; reason: CantPlay; screens: string[] }>();
  for (const screen of plan.screens) {
    const able = abilities.get(screen.id);
    if (!able) continue;
    const program = narrow(screen.id);
    const given = givenBy.get(program) ?? itemsOf(program);
    givenBy.set(program, given);
    const told = new Set<string>();
    for (const { media, fit } of given) {
      const file = files.get(media);
      const reason = file && cantPlay(file, screen, able, fit === 'exact');
      if (!reason || told.has(media)) continue;
      told.add(media);
      const one = found.get(`${media} ${reason}`) ?? { media, reason, screens: [] };
      found.set(`${media} ${reason}`, one);
      one.screens.push(screen.id);
    }
  }
  return [...found.values()]
    .map((one) => ({ ...one, screens: one.screens.sort() }))
    .sort((a, b) => (a.media < b.media || (a.media === b.media && a.reason < b.reason) ? -1 : 1));
}

/** A turn that shows a file. */
type FileItem = LoopItem & { readonly media: string };

/** All files' turns of a program, those of its music too, each file and fit once. */
function itemsOf({ loops, music = [] }: ScreenProgram): readonly FileItem[] {
  const items = [...loops, ...music.flatMap((one) => (one ? [one.loop] : []))]
    .flat()
    .filter((item): item is FileItem => item.media !== undefined);
  return [...new Map(items.map((item) => [`${item.media} ${item.fit ?? ''}`, item])).values()];
}

/** What of the ones is not among the others: a file may come to more screens that can't play it. */
export function newUnplayable(before: readonly Unplayable[], after: readonly Unplayable[]): Unplayable[] {
  const known = new Map(before.map((one) => [`${one.media} ${one.reason}`, new Set(one.screens)]));
  return after.flatMap((one) => {
    const fresh = one.screens.filter((id) => !known.get(`${one.media} ${one.reason}`)?.has(id));
    return fresh.length > 0 ? [{ ...one, screens: fresh }] : [];
  });
}
