import * as z from 'zod';

/** What a person chose lately, kept in the browser: the newest first. */

type Shelf = Pick<Storage, 'getItem' | 'setItem'>;

const MOST = 5;
const listSchema = z.array(z.string());

const nameOf = (person: string) => `lanternpost.recent ${person}`;

export function recentOf(shelf: Shelf | null, person: string): readonly string[] {
  try {
    return listSchema.parse(JSON.parse(shelf?.getItem(nameOf(person)) ?? '[]')).slice(0, MOST);
  } catch {
    return [];
  }
}

export function keepRecent(shelf: Shelf | null, person: string, value: string): void {
  const list = [value, ...recentOf(shelf, person).filter((one) => one !== value)].slice(0, MOST);
  try {
    shelf?.setItem(nameOf(person), JSON.stringify(list));
  } catch {
    // No room, or not allowed: one finds by name as before.
  }
}
