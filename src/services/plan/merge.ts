import type { Transaction } from 'sequelize';
import {
  NETWORK_ID,
  conflictSentence,
  fieldSaid,
  keyText,
  kindOf,
  merge,
  pointer,
  readDocument,
  type FieldConflict,
  type Kind,
  type LoosePatch,
  type Names,
  type ObjectKey,
} from '@/core/plan';
import { Refusal, type Problem } from '@/core/refusal';
import { rowsOfMany } from '@/database';
import { notFound } from '../errors';
import { loadObjects, targetsOf, type Write } from './objects';
import type { MediaFiles } from './media-files';

/** What a patch makes of the objects as they are by now, and where two people changed the same. */

/** A patch, and where it adds a media file or replaces one's file, the files that the library made for it. */
export type Edit = LoosePatch & { readonly files?: MediaFiles | undefined };

/** An edit of an object that has its id by now. */
export interface Named extends ObjectKey {
  readonly edit: Edit;
}

/** Makes the patches, one after the other, of the objects as they are; refuses conflicts and what is not valid. */
export async function merged(
  networkId: string,
  named: readonly Named[],
  loaded: ReadonlyMap<string, object>,
  within: Transaction,
): Promise<Map<string, Write>> {
  const writes = new Map<string, Write>();
  const conflicts: { readonly key: ObjectKey; readonly now: object | null; readonly conflict: FieldConflict }[] = [];
  for (const { kind, id, edit: one } of named) {
    const key = keyText({ kind, id });
    const known = writes.get(key);
    const before = loaded.get(key) ?? null;
    const now = known ? known.after : before;
    if ('add' in one && now)
      throw new Refusal(409, `There is already a ${kindOf(kind).noun} with the id “${id}”. Choose another.`, [
        { path: '/id', message: 'This id is taken. Choose another.' },
      ]);
    if (!('add' in one) && !now) throw notFound(kindOf(kind).noun);
    if ('remove' in one && kind === 'network') throw new Refusal(422, 'The network itself can’t be deleted here.');
    const result = merge(one, id, now);
    conflicts.push(...result.conflicts.map((conflict) => ({ key: { kind, id }, now, conflict })));
    writes.set(key, {
      kind,
      id,
      before,
      after: result.after && checked(kind, result.after, now, one.files !== undefined),
    });
  }
  const [first] = conflicts;
  if (first) await refuseConflicts(networkId, conflicts, within);
  return writes;
}

/** `measured`: with files that the library measured. */
function checked(kind: Kind, document: object, before: object | null, measured: boolean): object {
  const read = readDocument(kind, document);
  if (!read.ok) throw new Refusal(422, read.message, read.problems);
  const [old, next] = [before, read.value] as [Record<string, unknown> | null, Record<string, unknown>];
  const field = old && !measured && kindOf(kind).measured?.find((name) => old[name] !== next[name]);
  if (field)
    throw new Refusal(422, `“${field}” is measured from the file and can’t be changed.`, [
      { path: `/${field}`, message: 'This is measured from the file and can’t be changed.' },
    ]);
  return read.value;
}

/** Tells the later of two people who changed the same, with both values and the other's name. */
async function refuseConflicts(
  networkId: string,
  conflicts: readonly { readonly key: ObjectKey; readonly now: object | null; readonly conflict: FieldConflict }[],
  within: Transaction,
): Promise<void> {
  const people = await rowsOfMany<{ kind: Kind; object: string; name: string | null }>(
    `SELECT DISTINCT ON (c.kind, c.object) c.kind, c.object, p.name FROM changes c LEFT JOIN people p ON p.id = c.person_id
     JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text) ON c.kind = k.kind AND c.object = k.id
     WHERE c.network_id = $1 ORDER BY c.kind, c.object, c.id DESC`,
    [networkId, JSON.stringify(conflicts.map((one) => one.key))],
    conflicts.length,
    within,
  );
  const by = new Map(people.map(({ kind, object, name }) => [keyText({ kind, id: object }), name]));
  const names = await namesOf(networkId, conflicts, within);
  const problems = conflicts.map(({ key, now, conflict }): Problem => {
    const who = by.get(keyText(key)) ?? null;
    const words = fieldSaid(key.kind, conflict.field, conflict.theirs, names);
    return {
      path: pointer(conflict.entry === undefined ? [conflict.field] : [conflict.entry, conflict.field]),
      message: conflictSentence(key.kind, conflict, now, names, who ?? 'Someone'),
      theirs: { value: conflict.theirs, words, by: who },
    };
  });
  const [{ key, now } = { key: { kind: 'network' as const, id: NETWORK_ID }, now: null }] = conflicts;
  const who = by.get(keyText(key)) ?? 'Someone';
  throw new Refusal(
    409,
    conflicts.length === 1 && now
      ? (problems[0]?.message ?? '')
      : `${who} changed this ${kindOf(key.kind).noun} while you were editing it, in the same fields. Look at both.`,
    problems,
  );
}

/** The names of the objects that conflicting values refer to. */
async function namesOf(
  networkId: string,
  conflicts: readonly { readonly key: ObjectKey; readonly now: object | null; readonly conflict: FieldConflict }[],
  within: Transaction,
): Promise<Names> {
  const keys = conflicts.flatMap(({ key, now, conflict: { field, mine } }) => [
    ...targetsOf(key.kind, now),
    ...targetsOf(key.kind, { [field]: mine }),
  ]);
  const found = await loadObjects(networkId, keys, within);
  return (kind, id) => (found.get(`${kind} ${id}`) as { name?: string } | undefined)?.name ?? id;
}
