import type { WaitingPlayer } from '@/services/screens';

/** Which player gets which screen: as a person chose, the others the next screens without a player, in order. A screen is given once. */
export function screensFor(
  waiting: readonly Pick<WaitingPlayer, 'id'>[],
  chosen: ReadonlyMap<string, string>,
  free: readonly string[],
): ReadonlyMap<string, string> {
  const taken = new Set(chosen.values());
  const left = free.filter((id) => !taken.has(id));
  const given = new Map<string, string>();
  const used = new Set<string>();
  for (const { id } of waiting) {
    const screen = chosen.has(id) ? chosen.get(id) : left.shift();
    if (!screen || used.has(screen)) continue;
    used.add(screen);
    given.set(id, screen);
  }
  return given;
}
