import { MINUTE, type Instant } from '@/core/instant';
import { counted } from '@/interface/kit/words/format';
import type { Arrival } from '@/services/editions';
import type { ScreenStatus } from '@/services/screens';

/** The edition that one published and has not heard of yet: kept in this window, over reloads. */
export interface Followed {
  readonly number: number;
  readonly since: Instant;
}

const KEY = 'lanternpost:arriving';
const listeners = new Set<() => void>();

/** From now on one waits for word of an edition; null: no longer. */
export function follow(followed: Followed | null): void {
  if (followed) sessionStorage.setItem(KEY, JSON.stringify(followed));
  else sessionStorage.removeItem(KEY);
  for (const listener of listeners) listener();
}

/** What one waits for, as text: it stays the same while nothing is changed. */
export const followedText = (): string | null => sessionStorage.getItem(KEY);

export function onFollowed(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** An edition that takes longer than this is reported as late. */
const STUCK_MS = 5 * MINUTE;

/** What is to be told of an edition that arrives; `over` where nothing more will be, null where nothing is to be told yet. */
export function wordOf(
  { number, since }: Followed,
  arrivals: readonly Arrival[],
  statuses: ReadonlyMap<string, ScreenStatus>,
  nameOf: (screen: string) => string,
  now: Instant,
): { readonly text: string; readonly bad: boolean } | 'over' | null {
  const reached = arrivals.filter(({ at }) => at !== null).length;
  const missing = arrivals.filter(
    ({ screen, at }) => at === null && (statuses.get(screen)?.state ?? 'unpaired') !== 'unpaired',
  );
  const [first] = missing;
  if (!first) {
    const where = reached === 1 ? 'the screen' : `all ${counted(reached, 'screen')}`;
    return reached === 0 ? 'over' : { text: `Edition ${number} is on ${where} that it changes.`, bad: false };
  }
  if (now - since < STUCK_MS) return null;
  const names = nameOf(first.screen) + (missing.length > 1 ? ` and ${missing.length - 1} more` : '');
  const have = missing.length > 1 ? 'have' : 'has';
  return {
    text: `Edition ${number} isn’t everywhere after 5 minutes: ${names} ${have} not been updated. See Publish for the reasons.`,
    bad: true,
  };
}
