import { searchable } from '@/core/text';

/** Whether a name has all of some words in it, wherever: accents and capitals don't count. Nothing written fits everything. */
export function hasWords(name: string, written: string): boolean {
  const text = searchable(name);
  return searchable(written)
    .split(/\s+/)
    .every((word) => text.includes(word));
}
