import type { Fit } from '../plan/kinds/playlist';
import { isShown } from '../plan/known';
import type { Plan } from '../plan/schema';
import { never } from '../refusal';
import { programMaker } from './program';
import { screenGroups, selectedByName } from './screen-groups';

/** From so many times on an enlarged picture looks soft: common practice, no source. */
export const ENLARGED_FROM = 1.25;

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How many times a picture is enlarged on a screen; under 1 it is reduced. Stretched, on the side where it is more. */
export function enlarged(file: Size, screen: Size, fit: Fit = 'whole'): number {
  const [x, y] = [screen.width / file.width, screen.height / file.height];
  switch (fit) {
    case 'whole':
      return Math.min(x, y);
    case 'fill':
    case 'stretch':
      return Math.max(x, y);
    case 'exact':
      return 1;
    default:
      return never(fit);
  }
}

/** The files that some screen shows enlarged past what looks good, at any time: by their ids, how many times at most. */
export function tooSmall(plan: Plan): ReadonlyMap<string, number> {
  const [groups, keyOf] = screenGroups(plan, new Set(selectedByName(plan)));
  const sizes = new Map<string, Map<string, Size>>();
  for (const { id, width, height } of plan.screens) {
    const key = keyOf.get(id) ?? '';
    sizes.set(key, (sizes.get(key) ?? new Map<string, Size>()).set(`${width}x${height}`, { width, height }));
  }
  const files = new Map(plan.media.flatMap((file) => (isShown(file) ? [[file.id, file] as const] : [])));
  const narrow = programMaker(plan);
  const found = new Map<string, number>();
  for (const [key, { screen }] of groups)
    for (const loop of narrow(screen.id).loops)
      for (const { media, fit } of loop) {
        const file = files.get(media);
        if (!file) continue;
        for (const size of sizes.get(key)?.values() ?? []) {
          const times = enlarged(file, size, fit);
          if (times >= ENLARGED_FROM && times > (found.get(media) ?? 0)) found.set(media, times);
        }
      }
  return found;
}
