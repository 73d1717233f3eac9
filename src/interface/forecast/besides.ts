import { HOUR, MINUTE } from '@/core/instant';
import type { Besides } from '@/core/preflight';
import { counted } from '@/interface/kit/words/format';

/** What a fix changes besides what it is for, in words. */
export function besidesWords({ screens, longestMs }: Besides): string {
  if (screens === 0) return 'changes nothing else.';
  const minutes = Math.max(1, Math.round(longestMs / MINUTE));
  const length = longestMs >= HOUR ? `${Math.round(longestMs / HOUR)} h` : `${minutes} min`;
  return `also changes ${counted(screens, 'screen')}, for up to ${length}.`;
}

/** Which of several fixes changes least else: on the fewest screens, then for the shortest time; null where all change the same. */
export function leastOf(list: readonly Besides[]): number | null {
  const order = (a: Besides, b: Besides) => a.screens - b.screens || a.longestMs - b.longestMs;
  const [first, last] = [[...list].sort(order)[0], [...list].sort(order).at(-1)];
  if (!first || !last || order(first, last) === 0) return null;
  return list.indexOf(first);
}
