import { evaluate, parseSelector } from '@/core/selector';

/** What a selector asks of each tag, where it is no more than tags to have and tags not to have. */
export interface PlainSelector {
  readonly having: readonly string[];
  readonly without: readonly string[];
}

/** Null where the text is more than that, or no selector. "all" asks for nothing. */
export function plainSelector(text: string): PlainSelector | null {
  if (text.trim() === '') return { having: [], without: [] };
  const selector = parseSelector(text);
  return selector.ok ? evaluate(selector.value, PLAIN) : null;
}

/** Tags joined by "and" alone, each perhaps behind one "not". */
const PLAIN: Parameters<typeof evaluate<PlainSelector | null>>[1] = {
  all: () => ({ having: [], without: [] }),
  term: (term) => ({ having: [term], without: [] }),
  not: (of) => (of?.having.length === 1 && of.without.length === 0 ? { having: [], without: of.having } : null),
  and: (left, right) =>
    left && right && { having: [...left.having, ...right.having], without: [...left.without, ...right.without] },
  or: () => null,
};

/** The text after a tag's chip was pressed: to have it, not to have it, no matter. A longer selector is narrowed by it. */
export function pressChip(text: string, tag: string): string {
  const now = plainSelector(text);
  if (!now) return `(${text.trim()}) and ${tag}`;
  const { having, without } = now;
  const next: PlainSelector = having.includes(tag)
    ? { having: having.filter((one) => one !== tag), without: [...without, tag] }
    : without.includes(tag)
      ? { having, without: without.filter((one) => one !== tag) }
      : { having: [...having, tag], without };
  return [...next.having, ...next.without.map((one) => `not ${one}`)].join(' and ') || 'all';
}
