import * as z from 'zod';
import { tagOf, tagsOf, tagsSchema, type TagCount } from '@/core/plan';

/** Tags as a form's field holds them: separated by commas. */

export const tagsText = (tags: readonly string[] | undefined): string => (tags ?? []).join(', ');

export const tagsTextSchema = z.string().transform(tagsOf).pipe(tagsSchema);

/** So many tags are offered at once. */
const OFFERED = 8;

/** The tags that may be meant by what is typed, those that begin with it first, then the most used; none that are chosen already. */
export function tagsLike(typed: string, known: readonly TagCount[], chosen: readonly string[]): TagCount[] {
  const text = tagOf(typed);
  const has = new Set(chosen);
  return known
    .filter(({ tag }) => tag !== text && tag.includes(text) && !has.has(tag))
    .sort(
      (a, b) =>
        Number(b.tag.startsWith(text)) - Number(a.tag.startsWith(text)) ||
        b.count - a.count ||
        a.tag.localeCompare(b.tag),
    )
    .slice(0, OFFERED);
}
