import { nameSchema, type Plan } from '@/core/plan';
import { done, misread, type Result } from '@/core/refusal';
import { parseSelector, readSelectorNames } from '@/core/selector';

/** What is written in fields of one line, as `SavedInput` reads it. */

/** A name, without blanks around it. */
export function readName(text: string): Result<string> {
  const read = nameSchema.safeParse(text.trim());
  return read.success ? done(read.data) : misread(read.error.issues[0]?.message ?? '');
}

/** On which screens, as a selector with names of sites and screens; empty is undefined. */
export function readWhere(text: string, plan: Plan): Result<string | undefined> {
  const where = text.trim();
  if (where === '') return done(undefined);
  const names = readSelectorNames(where, plan);
  if (!names.ok) return names;
  const selector = parseSelector(where);
  return selector.ok ? done(where) : selector;
}
