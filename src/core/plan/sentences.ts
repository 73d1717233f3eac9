import { entryPatches, fieldsThatDiffer, type Entry, type FieldConflict, type Fields } from './entries';
import type { EntryWords, FieldWords, Names } from './kind';
import { isKind, kindOf, type Kind } from './registry';
import { objectIn } from './patch';
import type { Plan } from './schema';

/** Changes in words: what each field was and is, by the words that its kind describes it with. */

/** Names of a plan's objects; the id where it has none. */
export const namesIn =
  (plan: Plan): Names =>
  (kind, id) =>
    (isKind(kind) ? objectIn(plan, kind, id)?.name : undefined) ?? id;

/** A field's value in words; "none" where it is absent. */
function spoken(words: FieldWords | undefined, value: unknown, names: Names): string {
  if (isNone(value)) return 'none';
  return words ? words.say(value as never, names) : JSON.stringify(value);
}

const fieldWords = (kind: Kind, field: string): FieldWords | undefined =>
  (kindOf(kind).fields as Readonly<Record<string, FieldWords>>)[field];

/** What people call a field. */
export const fieldLabel = (kind: Kind, field: string): string => fieldWords(kind, field)?.label ?? field;

/** A value of a field in words. */
export const fieldSaid = (kind: Kind, field: string, value: unknown, names: Names): string =>
  spoken(fieldWords(kind, field), value, names);

/**
 * What a change made of an object, a phrase for each field: `priority 4, was 3`, `“Boat drill”: duration 20 s, was 10 s`. Empty
 * where the object was added or removed, or is as before.
 */
export function changeSentences(kind: Kind, before: object | null, after: object | null, names: Names): string[] {
  if (!before || !after) return [];
  const { fields, entries = {} } = kindOf(kind);
  const order = Object.keys(fields);
  const differs = fieldsThatDiffer(before, after);
  const changed = Object.keys(differs?.set ?? {}).sort((a, b) => order.indexOf(a) - order.indexOf(b));
  return changed.flatMap((field) => {
    const list = (entries as Readonly<Record<string, EntryWords>>)[field];
    const [old, next] = [(before as Fields)[field], (after as Fields)[field]];
    if (list) return entrySentences(list, (old ?? []) as Entry[], (next ?? []) as Entry[], names);
    return [became(fieldWords(kind, field), field, next, old, names)];
  });
}

/** A field's change: `priority 4, was 3`, `tags hall` where there was none, or the words that its kind has for it. */
function became(words: FieldWords | undefined, field: string, next: unknown, old: unknown, names: Names): string {
  if (words?.became) return words.became((next ?? false) as never);
  const was = isNone(old) ? '' : `, was ${spoken(words, old, names)}`;
  return `${words?.label ?? field} ${spoken(words, next, names)}${was}`;
}

const isNone = (value: unknown) => value === null || value === undefined;

function entrySentences(words: EntryWords, before: readonly Entry[], after: readonly Entry[], names: Names): string[] {
  const old = new Map(before.map((entry) => [entry.id, entry]));
  const next = new Map(after.map((entry) => [entry.id, entry]));
  const called = (id: string) => `“${words.name(next.get(id) ?? old.get(id) ?? {}, names)}”`;
  return entryPatches(before, after).map((patch) => {
    if ('add' in patch) return `“${words.name(patch.add, names)}” added`;
    if ('remove' in patch) return `${called(patch.id)} removed`;
    if (!('set' in patch)) return `${called(patch.id)} moved`;
    const was = old.get(patch.id) ?? {};
    const parts = Object.entries(patch.set).map(([field, value]) =>
      became(words.fields[field], field, value, was[field], names),
    );
    return `${called(patch.id)}: ${parts.join(', ')}`;
  });
}

/** Where two people changed the same field: `Ida changed the width to 1080 px while you were editing. Yours is 1280 px.` */
export function conflictSentence(
  kind: Kind,
  conflict: FieldConflict,
  now: object | null,
  names: Names,
  who: string,
): string {
  const { entry, field, theirs, mine } = conflict;
  if (entry === undefined)
    return `${who} changed “${fieldLabel(kind, field)}” to ${fieldSaid(kind, field, theirs, names)} while you were editing. Yours is ${fieldSaid(kind, field, mine, names)}.`;
  const { entries = {} } = kindOf(kind);
  for (const [list, words] of Object.entries(entries as Readonly<Record<string, EntryWords>>)) {
    const found = ((now as Fields | null)?.[list] as Entry[] | undefined)?.find((one) => one.id === entry);
    if (!found) return `${who} removed this while you were editing.`;
    const spokenField = words.fields[field];
    return `${who} changed “${words.name(found, names)}” while you were editing: ${spokenField?.label ?? field} is ${spoken(spokenField, theirs, names)}. Yours is ${spoken(spokenField, mine, names)}.`;
  }
  return `${who} changed this while you were editing.`;
}
