import { searchable } from '@/core/text';

/** What can be reached by its name: a place, a thing, or an act. */
export interface Reachable {
  readonly key: string;
  readonly name: string;
  /** What it is: "place", "booking", "act". */
  readonly what: string;
  /** What else tells it apart: a site, the key that does the same. */
  readonly hint?: string;
  readonly run: () => void;
}

/** At most this many results at once. */
const MOST = 24;

/** How well a name fits words: all must be in it. Higher is better, -1 is not at all. */
function fit(name: string, hint: string, words: readonly string[]): number {
  const text = searchable(name);
  let sum = 0;
  for (const word of words) {
    const at = text.indexOf(word);
    if (at === 0) sum += 3;
    else if (at > 0) sum += /[\p{L}\p{Nd}]/u.test(text[at - 1] ?? '') ? 1 : 2;
    else if (
      !searchable(hint)
        .split(/\s+/)
        .some((part) => part.startsWith(word))
    )
      return -1;
  }
  // Of two that fit alike the one of which more was written goes first.
  return sum + words.join(' ').length / Math.max(1, text.length);
}

/** The results for what is typed, the best first; the first ones in their order while nothing is typed. */
export function reach(list: readonly Reachable[], written: string): Reachable[] {
  const words = searchable(written).split(/\s+/).filter(Boolean);
  if (words.length === 0) return list.slice(0, MOST);
  return list
    .map((one) => ({ one, fits: fit(one.name, `${one.what} ${one.hint ?? ''}`, words) }))
    .filter(({ fits }) => fits >= 0)
    .sort((a, b) => b.fits - a.fits)
    .slice(0, MOST)
    .map(({ one }) => one);
}
