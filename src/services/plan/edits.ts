import { UniqueConstraintError, type Transaction } from 'sequelize';
import {
  bookingSchema,
  calendarSchema,
  canonicalJson,
  mediaSchema,
  networkSchema,
  playlistSchema,
  problemsOf,
  referenceProblems,
  screenSchema,
  siteSchema,
  type Plan,
  type Problem,
} from '@/core';
import { ChangeRow, NetworkRow, publish, rows, transaction, uuidv7, type ChangeKind } from '@/database';
import { ServiceError, notFound } from '../errors';
import type { Actor } from '../people';
import {
  COLLECTION,
  loadPlan,
  mediaColumns,
  removeObject,
  writeNetwork,
  writeObject,
  type MediaColumns,
  type RowIds,
} from './records';
import { slugFor } from './slug';

/** One wish to change the plan: the object's new document, or null to remove it. Without `id`, a new object named after `document.name`. */
export interface Edit {
  readonly kind: ChangeKind;
  readonly id?: string | undefined;
  readonly document: unknown;
  /** The last change that the person had seen; a later one of the same object is a conflict. */
  readonly basedOn?: number | undefined;
  readonly columns?: MediaColumns | undefined;
}

export interface EditResult {
  /** The last change's number, to base the next edit on. */
  readonly change: number;
  /** Numbers of the changes that were made. */
  readonly changes: readonly number[];
  /** The ids of the objects, in the order of the edits. */
  readonly ids: readonly string[];
}

const SCHEMAS = {
  network: networkSchema,
  calendar: calendarSchema,
  site: siteSchema,
  screen: screenSchema,
  media: mediaSchema,
  playlist: playlistSchema,
  booking: bookingSchema,
};

export const THING: Record<ChangeKind, string> = {
  network: 'network',
  calendar: 'calendar',
  site: 'site',
  screen: 'screen',
  media: 'media file',
  playlist: 'playlist',
  booking: 'booking',
};

/** Fields of a media file that are measured, not chosen. */
const MEASURED = ['kind', 'width', 'height', 'bytes', 'added', 'sha256', 'type'] as const;

/** What a person does in one go, and what undo takes back whole. */
export interface Act {
  readonly id: string;
  /** The act that this one takes back. */
  readonly takesBack?: string | undefined;
}

/** Makes a person's edits in one transaction: all of them with their rows in the audit trail, or none. They are one act. */
export function edit(actor: Actor, edits: readonly Edit[]): Promise<EditResult> {
  return transaction((within) => editWithin(actor, edits, within, { id: uuidv7() }));
}

/** The same inside a transaction that does more; without an act, what can't be undone. Edits of one network take turns. */
export async function editWithin(
  actor: Actor,
  edits: readonly Edit[],
  within: Transaction,
  act?: Act,
): Promise<EditResult> {
  const { networkId } = actor;
  await takeTurn(networkId, within);
  const loaded = await loadPlan(networkId, within);
  const steps = edits.map((one) => ({ ...one, ...applied(loaded.plan, one) }));
  refuseDangling(loaded.plan, edits);
  const removed = new Map<string, MediaColumns | null>();
  for (const step of steps) {
    await refuseConflict(networkId, step, within);
    if (step.kind === 'media' && step.after === null)
      removed.set(step.id, await mediaColumns(networkId, step.id, within));
    await write(networkId, step, loaded.ids, within);
  }
  const made = steps.filter(({ before, after }) => canonicalJson(before) !== canonicalJson(after));
  const written = await ChangeRow.bulkCreate(
    made.map(({ kind, id, before, after }) => ({
      kind,
      object: id,
      before,
      after,
      networkId,
      personId: actor.personId,
      act: act?.id ?? null,
      takesBack: act?.takesBack ?? null,
      columns: (kind === 'media' && removed.get(id)) || null,
    })),
    { transaction: within, returning: true },
  );
  const changes = written.map((row) => Number(row.id));
  if (changes.length > 0) await publish({ kind: 'changes', network: networkId }, within);
  return {
    change: changes.at(-1) ?? (await lastChange(networkId, within)),
    changes,
    ids: steps.map((step) => step.id),
  };
}

/** Waits until nobody else edits the network, and keeps others waiting until the transaction ends. */
export async function takeTurn(networkId: string, within: Transaction): Promise<void> {
  await NetworkRow.findByPk(networkId, { transaction: within, lock: within.LOCK.UPDATE });
}

/** Number of the network's last change; 0 before the first. */
export async function lastChange(networkId: string, within?: Transaction): Promise<number> {
  return Number((await ChangeRow.max('id', { where: { networkId }, transaction: within })) ?? 0);
}

/** An edit that was checked and applied to the plan in memory: the object's document before and after, null where there is none. */
interface Step extends Edit {
  readonly id: string;
  readonly before: unknown;
  readonly after: unknown;
}

function applied(plan: Plan, one: Edit): Pick<Step, 'id' | 'before' | 'after'> {
  const { kind } = one;
  if (kind === 'network') {
    const before = plan.network;
    plan.network = check(kind, one.document, 'network') as Plan['network'];
    return { id: 'network', before, after: plan.network };
  }
  const list = plan[COLLECTION[kind]] as { id: string }[];
  const place = list.findIndex((entry) => entry.id === one.id);
  const before = place < 0 ? null : (list[place] ?? null);
  const id = one.id ?? newId(one.document, list);
  if (one.document === null) {
    if (!before) throw notFound(THING[kind]);
    list.splice(place, 1);
    return { id, before, after: null };
  }
  const after = check(kind, one.document, id) as { id: string };
  if (before) list[place] = after;
  else list.push(after);
  if (kind === 'media') refuseMeasured(before, after);
  return { id, before, after };
}

/** Writes a step's rows; a broken rule of the database becomes a sentence. */
async function write(
  networkId: string,
  { kind, id, after, columns }: Step,
  ids: RowIds,
  within: Transaction,
): Promise<void> {
  try {
    if (kind === 'network') await writeNetwork(networkId, after as Plan['network'], ids, within);
    else if (after === null) await removeObject(networkId, kind, id, ids, within);
    else await writeObject(networkId, kind, after as never, ids, within, columns);
  } catch (error) {
    if (error instanceof UniqueConstraintError)
      throw new ServiceError(409, `There is a ${THING[kind]} of this name already: choose another name.`, [
        { path: '/name', message: 'This name is taken: choose another.' },
      ]);
    throw error;
  }
}

function newId(document: unknown, list: readonly { id: string }[]): string {
  const name = typeof document === 'object' && document !== null && 'name' in document ? String(document.name) : '';
  return slugFor(
    name,
    list.map((entry) => entry.id),
  );
}

function check(kind: ChangeKind, document: unknown, id: string): unknown {
  const whole = kind === 'network' || typeof document !== 'object' ? document : { ...document, id };
  const result = SCHEMAS[kind].safeParse(whole);
  if (result.success) return result.data;
  const problems = problemsOf(result.error);
  throw new ServiceError(422, problems[0]?.message ?? `This ${THING[kind]} is not valid.`, problems);
}

async function refuseConflict(networkId: string, one: Step, within: Transaction): Promise<void> {
  if (one.basedOn === undefined) return;
  const [later] = await rows<{ name: string | null }>(
    `SELECT p.name FROM changes c LEFT JOIN people p ON p.id = c.person_id
     WHERE c.network_id = $1 AND c.kind = $2 AND c.object = $3 AND c.id > $4 ORDER BY c.id DESC LIMIT 1`,
    [networkId, one.kind, one.id, one.basedOn],
    within,
  );
  if (later)
    throw new ServiceError(
      409,
      `${later.name ?? 'Somebody'} changed this ${THING[one.kind]} meanwhile: look at the newest, then make your change again.`,
    );
}

function refuseMeasured(before: unknown, after: unknown): void {
  if (!before) return;
  const [old, next] = [before as Record<string, unknown>, after as Record<string, unknown>];
  const field = MEASURED.find((name) => old[name] !== next[name]);
  if (field)
    throw new ServiceError(422, `"${field}" is measured from the file and can't be changed.`, [
      { path: `/${field}`, message: 'This is measured from the file: leave it as it is.' },
    ]);
}

/** What would point at nothing: on removal, names what still uses the object; else the places in the edited document. */
function refuseDangling(plan: Plan, edits: readonly Edit[]): void {
  const problems = referenceProblems(plan);
  if (problems.length === 0) return;
  const removal = edits.find((one) => one.document === null);
  if (removal) {
    const users = [...new Set(problems.map((problem) => ownerName(plan, problem)))];
    throw new ServiceError(
      409,
      `This ${THING[removal.kind]} is still used by ${users.join(', ')}: take it out there first.`,
    );
  }
  const inside = problems.map(({ path, message }) => ({ path: path.replace(/^\/(network|[a-z]+\/\d+)/, ''), message }));
  throw new ServiceError(422, inside[0]?.message ?? 'The plan would not hold together.', inside);
}

function ownerName(plan: Plan, problem: Problem): string {
  const [, collection = '', index = ''] = problem.path.split('/');
  if (collection === 'network') return "the network's backdrop";
  const entry = (plan[collection as 'sites'] as { name: string }[])[Number(index)];
  return `${collection.replace(/s$/, '')} "${entry?.name ?? index}"`;
}
