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
  if (value === null || value === undefined) return 'none';
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
 * What a change made of an object, a phrase for each field: `priority 4, was 3`, `"Boat drill": duration 20 s, was 10 s`. Empty
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
    const words = fieldWords(kind, field);
    return [`${words?.label ?? field} ${spoken(words, next, names)}, was ${spoken(words, old, names)}`];
  });
}

function entrySentences(words: EntryWords, before: readonly Entry[], after: readonly Entry[], names: Names): string[] {
  const old = new Map(before.map((entry) => [entry.id, entry]));
  const next = new Map(after.map((entry) => [entry.id, entry]));
  const called = (id: string) => `"${words.name(next.get(id) ?? old.get(id) ?? {}, names)}"`;
  return entryPatches(before, after).map((patch) => {
    if ('add' in patch) return `"${words.name(patch.add, names)}" put in`;
    if ('remove' in patch) return `${called(patch.id)} taken out`;
    if (!('set' in patch)) return `${called(patch.id)} moved`;
    const was = old.get(patch.id) ?? {};
    const parts = Object.entries(patch.set).map(
      ([field, value]) =>
        `${words.fields[field]?.label ?? field} ${spoken(words.fields[field], value, names)}, was ${spoken(words.fields[field], was[field], names)}`,
    );
    return `${called(patch.id)}: ${parts.join(', ')}`;
  });
}

/** Where two changed the same: `Ida changed the width to 1080 px meanwhile; yours is 1280 px.` */
export function conflictSentence(
  kind: Kind,
  conflict: FieldConflict,
  now: object | null,
  names: Names,
  who: string,
): string {
  const { entry, field, theirs, mine } = conflict;
  if (entry === undefined)
    return `${who} changed "${fieldLabel(kind, field)}" to ${fieldSaid(kind, field, theirs, names)} meanwhile; yours is ${fieldSaid(kind, field, mine, names)}.`;
  const { entries = {} } = kindOf(kind);
  for (const [list, words] of Object.entries(entries as Readonly<Record<string, EntryWords>>)) {
    const found = ((now as Fields | null)?.[list] as Entry[] | undefined)?.find((one) => one.id === entry);
    if (!found) return `${who} took this out meanwhile.`;
    const spokenField = words.fields[field];
    return `${who} changed "${words.name(found, names)}" meanwhile: ${spokenField?.label ?? field} is ${spoken(spokenField, theirs, names)}; yours is ${spoken(spokenField, mine, names)}.`;
  }
  return `${who} changed this meanwhile.`;
}
