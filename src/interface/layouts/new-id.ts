import { newEntryId } from '@/core/plan';

/** Room that is left of an id's 80 characters for what is put behind it. */
const LONGEST = 50;

/** An id for something that is added together with what names it: readable, unless it is taken. */
export function newId(wanted: string, taken: readonly { readonly id: string }[]): string {
  const base = wanted.slice(0, LONGEST);
  return taken.some(({ id }) => id === base) ? `${base}-${newEntryId(Math.random)}` : base;
}
