import { isDeepStrictEqual } from 'node:util';
import { UniqueConstraintError, type Transaction } from 'sequelize';
import { FORMAT, NETWORK_ID, kindOf, patchOf, withoutWas, type Kind, type LoosePatch, type Media } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { ChangeRow, publish, rows, uuidv7 } from '@/database';
import { demand, type Actor } from '../people';
import { attachFiles, filesOfMedia, replacedIn, type MediaFiles } from './media-files';
import { refuseGuarded } from './guards';
import { refuseInForce } from './in-force';
import { loadObjects, takenIds, writeObjects, type Write } from './objects';
import { namedMedia } from './named-media';
import { bringPlayersBack, endPlayersOf } from './removed-screens';
import { slugBase, slugFor } from './slug';
import { inTurn, takeTurn } from './turns';
import { merged, type Edit, type Named } from './merge';
import { refuseDangling } from './integrity';

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
  await bringPlayersBack(networkId, writes, within);
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
