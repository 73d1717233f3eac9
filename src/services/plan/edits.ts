import { isDeepStrictEqual } from 'node:util';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import {
  FORMAT,
  NETWORK_ID,
  Refusal,
  clipProblems,
  conflictSentence,
  currentDocument,
  danglingMessage,
  fieldSaid,
  keyText,
  kindOf,
  linksOf,
  merge,
  nestingProblems,
  patchOf,
  pointer,
  readDocument,
  referencesOf,
  withoutWas,
  type FieldConflict,
  type Kind,
  type LoosePatch,
  type Media,
  type Names,
  type ObjectKey,
  type Playlist,
  type Problem,
} from '@/core';
import { ChangeRow, publish, rows, rowsOfMany, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { attachFiles, filesOfMedia, replacedIn, type MediaFiles } from './media-files';
import { refuseGuarded } from './guards';
import { refuseInForce } from './in-force';
import { loadObjects, takenIds, targetsOf, writeObjects, type Write } from './objects';
import { namedMedia } from './named-media';
import { endPlayersOf } from './removed-screens';
import { slugBase, slugFor } from './slug';
import { inTurn, takeTurn } from './turns';

/** A patch, and where it adds a media file or replaces one's file, the files that the library made for it. */
export type Edit = LoosePatch & { readonly files?: MediaFiles | undefined };

export interface EditResult {
  /** The last change's number. */
  readonly change: number;
  /** That of the change before these. */
  readonly previous: number;
  /** Numbers of the changes that were made. */
  readonly changes: readonly number[];
  /** What each of them made of its object. */
  readonly patches: readonly LoosePatch[];
  /** The ids of the objects, in the order of the edits. */
  readonly ids: readonly string[];
  /** Files that were changed or came into use, as they are now: a page may not have them. */
  readonly media: readonly Media[];
  /** The act that these edits belong to. Later edits can be added to it. */
  readonly act?: string;
}

/** A set of edits that belong together: undo takes all of them back at once. */
export interface Act {
  readonly id: string;
  /** The act that this one takes back. */
  readonly takesBack?: string | undefined;
  /** What the page that asked calls it, so that it knows its own in the feed. */
  readonly origin?: string | undefined;
}

/**
 * Makes a person's edits in one transaction: all of them with their rows in the audit trail, or none. They are one act, or are added to an
 * earlier act of that person: edits too large for one request come in several. Throws 403 for a person who may not change the plan, or what of
 * it is for others, and 422 for an act that is not theirs.
 */
export async function edit(
  actor: Actor,
  edits: readonly Edit[],
  { origin, goesOn }: { readonly origin?: string | undefined; readonly goesOn?: string | undefined } = {},
): Promise<EditResult> {
  demand(actor, 'plan');
  return inTurn(actor.networkId, async (within) => {
    if (goesOn !== undefined && !(await isOwnAct(actor, goesOn, within)))
      throw new Refusal(422, 'The edit that this belongs to is no longer known. Reload the page, then try again.');
    const act = goesOn ?? uuidv7();
    const result = await editWithin(actor, edits, within, { id: act, origin });
    return result.changes.length > 0 ? { ...result, act } : result;
  });
}

async function isOwnAct({ networkId, personId }: Actor, act: string, within: Transaction): Promise<boolean> {
  return (await ChangeRow.count({ where: { networkId, personId, act, takesBack: null }, transaction: within })) > 0;
}

/**
 * The same inside a transaction that does more; without an act, what can't be undone. Edits of one network take turns. What
 * is touched is loaded, not the plan: the number of statements does not grow with either.
 */
export async function editWithin(
  actor: Actor,
  edits: readonly Edit[],
  within: Transaction,
  act?: Act,
): Promise<EditResult> {
  const { networkId } = actor;
  await takeTurn(networkId, within);
  const named = await withIds(networkId, edits, within);
  const before = await loadObjects(networkId, named, within);
  const after = await merged(networkId, named, before, within);
  const writes = [...after.values()].filter(({ kind, id, ...one }) => patchOf(kind, id, one.before, one.after));
  const ids = named.map((one) => one.id);
  if (writes.length === 0) {
    const change = await lastChange(networkId, within);
    return { change, previous: change, changes: [], ids, patches: [], media: [] };
  }
  if (writes.some(isSetting)) demand(actor, 'settings');
  await refuseGuarded(actor, writes, within);
  if (act) await refuseInForce(networkId, writes, within);
  await refuseDangling(networkId, writes, within);
  const removed = writes.filter((one) => one.kind === 'media' && !one.after);
  const files = await filesOfMedia(
    networkId,
    [...removed, ...replacedIn(writes)].map((one) => one.id),
    within,
  );
  await endPlayersOf(networkId, writes, within);
  await written(networkId, writes, within);
  const given = new Map(named.flatMap(({ id, edit: { files: made } }) => (made ? [[id, made] as const] : [])));
  await attachFiles(actor, writes, given, within);
  const { previous, numbers } = await recordChanges(actor, writes, act, files, within);
  const change = numbers.at(-1) ?? previous;
  const { origin } = act ?? {};
  await publish({ kind: 'changes', network: networkId, first: numbers[0] ?? change, change, origin }, within);
  const media = await namedMedia(networkId, writes, within);
  return { change, previous, changes: numbers, ids, patches: writes.map(patchDone), media };
}

/** Whether a write changes what holds for the whole network. Its backdrop is part of the plan, as that of a site or a screen is. */
function isSetting({ kind, before, after }: Write): boolean {
  if (kind !== 'network') return false;
  const { backdrop: _old, ...settings } = (before ?? {}) as Record<string, unknown>;
  const { backdrop: _new, ...changed } = (after ?? {}) as Record<string, unknown>;
  return !isDeepStrictEqual(settings, changed);
}

/** What was done, for those who only follow. */
function patchDone({ kind, id, before, after }: Write): LoosePatch {
  return withoutWas(patchOf(kind, id, before, after) ?? { kind, id, set: {} });
}

/** Writes the trail's rows, in order; returns their numbers, and that of the change before them. */
async function recordChanges(
  { networkId, personId, byKey }: Actor,
  writes: readonly Write[],
  act: Act | undefined,
  files: ReadonlyMap<string, MediaFiles>,
  within: Transaction,
): Promise<{ previous: number; numbers: number[] }> {
  const made = writes.map(({ kind, id, before, after }, place) => ({
    ...{ place, kind, object: id, before, after },
    columns: (kind === 'media' && files.get(id)) || null,
  }));
  const found = await rows<{ id: string; previous: string }>(
    `WITH previous AS MATERIALIZED (SELECT coalesce(max(id), 0) AS id FROM changes WHERE network_id = $1)
     INSERT INTO changes (network_id, person_id, act, takes_back, format, by_key, kind, object, before, after, columns)
     SELECT $1, $2, $3, $4, $5, $7, m.kind, m.object, nullif(m.before, 'null'), nullif(m.after, 'null'), nullif(m.columns, 'null')
     FROM jsonb_to_recordset($6::jsonb) AS m(place int, kind text, object text, before jsonb, after jsonb, columns jsonb) ORDER BY m.place
     RETURNING id, (SELECT id FROM previous) AS previous`,
    [networkId, personId, act?.id, act?.takesBack, FORMAT, JSON.stringify(made), byKey === true],
    within,
  );
  return {
    previous: Number(found[0]?.previous ?? 0),
    numbers: found.map((row) => Number(row.id)).sort((a, b) => a - b),
  };
}

/** Number of the network's last change; 0 before the first. */
export async function lastChange(networkId: string, within?: Transaction): Promise<number> {
  return Number((await ChangeRow.max('id', { where: { networkId }, transaction: within })) ?? 0);
}

interface Named extends ObjectKey {
  readonly edit: Edit;
}

/** Gives new objects an id, made from their names, that is free. */
async function withIds(networkId: string, edits: readonly Edit[], within: Transaction): Promise<Named[]> {
  const nameOf = (add: object) => ('name' in add && typeof add.name === 'string' ? add.name : '');
  const unnamed = edits.flatMap((one) =>
    'add' in one && one.id === undefined ? [{ kind: one.kind, base: slugBase(nameOf(one.add)) }] : [],
  );
  const taken = new Map<Kind, Set<string>>();
  const takenOf = (kind: Kind) => taken.get(kind) ?? taken.set(kind, new Set()).get(kind) ?? new Set<string>();
  if (unnamed.length > 0) for (const { kind, id } of await takenIds(networkId, unnamed, within)) takenOf(kind).add(id);
  return edits.map((one) => {
    if (one.id !== undefined) return { kind: one.kind, id: one.id, edit: one };
    const id = one.kind === 'network' ? NETWORK_ID : slugFor('add' in one ? nameOf(one.add) : '', takenOf(one.kind));
    takenOf(one.kind).add(id);
    return { kind: one.kind, id, edit: one };
  });
}

/** Makes the patches, one after the other, of the objects as they are; refuses conflicts and what is not valid. */
async function merged(
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

/** Writes the objects' rows; a name that is taken becomes a sentence. */
async function written(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  try {
    await writeObjects(networkId, writes, within);
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
    const noun = writes.length === 1 && writes[0] ? kindOf(writes[0].kind).noun : 'thing';
    throw new Refusal(409, `There is already a ${noun} with this name. Choose another name.`, [
      { path: '/name', message: 'This name is taken. Choose another.' },
    ]);
  }
}

/** What would point at nothing: on removal, names what still uses the object; else the places in the edited documents. */
async function refuseDangling(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const touched = new Map(writes.map((one) => [keyText(one), one]));
  const gone = writes.filter((one) => !one.after);
  if (gone.length > 0) await refuseUsed(networkId, gone, touched, within);
  const links = writes.flatMap((one) => linksOf(one.after, referencesOf(one.kind)).map((link) => ({ one, link })));
  const asked = links.flatMap(({ link }) => {
    const key = { kind: link.kind as Kind, id: link.id };
    return touched.has(keyText(key)) ? [] : [key];
  });
  const there = asked.length > 0 ? await existing(networkId, asked, within) : new Set<string>();
  const problems = links.flatMap(({ link: { kind, id, path } }): Problem[] => {
    const key = keyText({ kind: kind as Kind, id });
    const stays = touched.has(key) ? touched.get(key)?.after !== null : there.has(key);
    return stays ? [] : [{ path: pointer(path), message: danglingMessage(kind, id) }];
  });
  if (problems.length === 0)
    problems.push(
      ...(await nestingProblemsOf(networkId, writes, within)),
      ...(await clipsOf(networkId, writes, within)),
    );
  if (problems[0]) throw new Refusal(422, problems[0].message, problems);
}

async function existing(networkId: string, keys: readonly ObjectKey[], within: Transaction): Promise<Set<string>> {
  const asked = new Map(keys.map((key) => [keyText(key), key]));
  const found = await rowsOfMany<{ kind: Kind; slug: string }>(
    `SELECT o.kind, o.slug FROM plan_objects o JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text)
       ON o.kind = k.kind AND o.slug = k.id WHERE o.network_id = $1`,
    [networkId, JSON.stringify([...asked.values()])],
    asked.size,
    within,
  );
  return new Set(found.map(({ kind, slug }) => keyText({ kind, id: slug })));
}

async function refuseUsed(
  networkId: string,
  gone: readonly Write[],
  touched: ReadonlyMap<string, Write>,
  within: Transaction,
): Promise<void> {
  const users = await rowsOfMany<{ kind: Kind; id: string; name: string; toKind: Kind; toId: string }>(
    `SELECT o.kind, o.slug AS id, o.name, l.to_kind AS "toKind", l.to_slug AS "toId" FROM plan_links l
     JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text) ON l.to_kind = k.kind AND l.to_slug = k.id
     JOIN plan_objects o ON o.network_id = l.network_id AND o.kind = l.from_kind AND o.slug = l.from_slug
     WHERE l.network_id = $1 ORDER BY o.kind, o.slug`,
    [networkId, JSON.stringify(gone.map(({ kind, id }) => ({ kind, id })))],
    gone.length,
    within,
  );
  const still = users.filter((user) => {
    const known = touched.get(keyText(user));
    return known
      ? targetsOf(user.kind, known.after).some((one) => keyText(one) === keyText({ kind: user.toKind, id: user.toId }))
      : true;
  });
  const [first] = still;
  if (!first) return;
  const named = still.map(({ kind, name }) =>
    kind === 'network' ? 'the network’s backdrop' : `${kindOf(kind).noun} “${name}”`,
  );
  throw new Refusal(
    409,
    `This ${kindOf(first.toKind).noun} is still used by ${[...new Set(named)].join(', ')}. Remove it there first.`,
  );
}

/** Clips that the films of edited playlists do not have. */
async function clipsOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<Problem[]> {
  const playlists = [
    ...writes.filter((one) => one.kind === 'playlist' && one.after),
    ...(await playingCutsOf(networkId, writes, within)),
  ];
  const wanted = playlists.flatMap(({ after }) =>
    (after as Playlist).items.flatMap(({ clip, media }) => (clip && media !== undefined ? [media] : [])),
  );
  if (wanted.length === 0) return [];
  const keys = [...new Set(wanted)].map((id): ObjectKey => ({ kind: 'media', id }));
  const files = await loadObjects(networkId, keys, within);
  for (const { kind, id, after } of writes) if (kind === 'media' && after) files.set(keyText({ kind, id }), after);
  const fileOf = (id: string) => files.get(keyText({ kind: 'media', id })) as Media | undefined;
  return playlists.flatMap(({ id, after }) =>
    clipProblems(after, fileOf).map(({ path, message }) =>
      writes.some((one) => one.kind === 'playlist' && one.id === id)
        ? { path: pointer(path), message }
        : { path: '', message: `In the playlist “${(after as Playlist).name}”: ${message}` },
    ),
  );
}

/** Playlists beside those that are edited that play files which are replaced: what they cut out of them has to be there still. */
async function playingCutsOf(
  networkId: string,
  writes: readonly Write[],
  within: Transaction,
): Promise<{ readonly id: string; readonly after: object }[]> {
  const replaced = replacedIn(writes).map(({ id }) => id);
  if (replaced.length === 0) return [];
  const found = await rows<{ slug: string; document: object; format: number }>(
    `SELECT o.slug, o.document, o.format FROM plan_links l
     JOIN plan_objects o ON o.network_id = l.network_id AND o.kind = l.from_kind AND o.slug = l.from_slug
     WHERE l.network_id = $1 AND l.from_kind = 'playlist' AND l.to_kind = 'media' AND l.to_slug = ANY($2)`,
    [networkId, replaced],
    within,
  );
  return found
    .filter(({ slug }) => !writes.some((one) => one.kind === 'playlist' && one.id === slug))
    .map(({ slug, document, format }) => ({ id: slug, after: currentDocument('playlist', document, format) }));
}

/** What comes to contain itself, or too much: objects that contain each other, as far as the links reach from those that are edited. */
async function nestingProblemsOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<Problem[]> {
  const problems: Problem[] = [];
  for (const kind of new Set(writes.map((one) => one.kind))) {
    if (!referencesOf(kind).some((path) => path.kind === kind)) continue;
    const edited = new Map(writes.flatMap((one) => (one.kind === kind && one.after ? [[one.id, one.after]] : [])));
    if (edited.size === 0) continue;
    const starts = [...edited].flatMap(([id, after]) => [
      id,
      ...targetsOf(kind, after).flatMap((target) => (target.kind === kind ? [target.id] : [])),
    ]);
    const reached = await rows<{ slug: string; name: string; document: object }>(
      `WITH RECURSIVE reached(slug) AS (SELECT unnest($3::text[]) COLLATE "C" UNION
         SELECT CASE WHEN l.from_slug = r.slug THEN l.to_slug ELSE l.from_slug END
         FROM plan_links l JOIN reached r ON r.slug IN (l.from_slug, l.to_slug)
         WHERE l.network_id = $1 AND l.from_kind = $2 AND l.to_kind = $2)
       SELECT o.slug, o.name, o.document FROM plan_objects o JOIN reached r ON o.slug = r.slug
       WHERE o.network_id = $1 AND o.kind = $2`,
      [networkId, kind, [...new Set(starts)]],
      within,
    );
    const names = new Map(reached.map(({ slug, name }) => [slug, name]));
    const documents = new Map<string, object>(reached.map(({ slug, document }) => [slug, document]));
    for (const [id, after] of edited) documents.set(id, after);
    for (const { id, path, message } of nestingProblems(kind, documents))
      problems.push(
        edited.has(id)
          ? { path: pointer(path), message }
          : { path: '', message: `This is in the ${kindOf(kind).noun} “${names.get(id) ?? id}”. ${message}` },
      );
  }
  return problems;
}
