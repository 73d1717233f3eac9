import { LRUCache } from 'lru-cache';
import { Op, type Transaction } from 'sequelize';
import { z } from 'zod';
import {
  FORMAT,
  Refusal,
  chosenPlan,
  currentPlan,
  emptyPlan,
  orThrow,
  samePlan,
  sharing,
  withUsedMedia,
  type CompiledBase,
  type CompiledEdition,
  type ObjectKey,
  type Plan,
} from '@/core';
import { EditionRow, EditionScreenRow, publish, rows } from '@/database';
import { notFound } from '../errors';
import { readInput, type Actor } from '../people';
import { inTurn, lastChange, loadPlan, takeTurn } from '../plan';
import { compile } from './compile';
import { deliverNew } from './deliver';
import { writePrograms } from './programs';

/** One publication, as the list shows it. */
export interface Edition {
  readonly number: number;
  readonly publishedAt: string;
  readonly person: string | null;
  /** The edition that this one published again. */
  readonly again: number | null;
  /** Whether it holds all that was changed until then, or a choice of it. */
  readonly whole: boolean;
  /** What it is for, in its author's words. */
  readonly note: string | null;
  /** How many screens it gave another program than the edition before. */
  readonly touched: number;
}

/** A network's editions, newest first. */
export async function editions(actor: Actor): Promise<Edition[]> {
  const found = await rows<Omit<Edition, 'publishedAt'> & { publishedAt: Date }>(
    `SELECT e.number, e.published_at AS "publishedAt", p.name AS person, e.again, e.whole, e.note,
       (SELECT count(*)::int FROM edition_screens s LEFT JOIN editions b ON b.network_id = e.network_id AND b.number = e.number - 1
          LEFT JOIN edition_screens o ON o.edition_id = b.id AND o.screen = s.screen
        WHERE s.edition_id = e.id AND o.hash IS DISTINCT FROM s.hash) AS touched
     FROM editions e LEFT JOIN people p ON p.id = e.person_id WHERE e.network_id = $1 ORDER BY e.number DESC LIMIT 100`,
    [actor.networkId],
  );
  return found.map((row) => ({ ...row, publishedAt: row.publishedAt.toISOString() }));
}

/** An edition as a whole. Its plan is shared between callers: they may not change it. */
export interface WholeEdition {
  readonly id: string;
  readonly networkId: string;
  readonly number: number;
  readonly publishedAt: Date;
  /** All changes up to this one are in it. */
  readonly lastChange: number;
  readonly again: number | null;
  readonly whole: boolean;
  readonly plan: Plan;
}

/** Whether an edition is the draft as it stands at a change. */
export const isDraftAt = ({ lastChange, again, whole }: WholeEdition, change: number) =>
  whole && again === null && lastChange === change;

/** Plans of editions by the edition's id: an edition never changes. */
const remembered = new LRUCache<string, Plan>({ max: 16 });

/** The newest edition of a network, or null before the first. */
export async function newestEdition(networkId: string, within?: Transaction): Promise<WholeEdition | null> {
  const row = await EditionRow.findOne({
    where: { networkId },
    attributes: { exclude: ['plan'] },
    order: [['number', 'DESC']],
    transaction: within,
  });
  if (!row) return null;
  const { id, number, publishedAt, lastChange: change, again, whole } = row;
  let plan = remembered.get(id);
  if (!plan) {
    const whole = await EditionRow.findByPk(id, {
      attributes: ['plan', 'format'],
      transaction: within,
      rejectOnEmpty: true,
    });
    remembered.set(id, (plan = currentPlan(whole.plan, whole.format)));
  }
  return { id, networkId, number, publishedAt, lastChange: change, again, whole, plan };
}

/** The number of a network's newest edition; 0 before the first. */
export async function newestNumber(networkId: string): Promise<number> {
  return (await EditionRow.max<number | null, EditionRow>('number', { where: { networkId } })) ?? 0;
}

/** The plan of the newest edition: what the players run. Null before the first. */
export async function publishedPlan(actor: Actor): Promise<{ plan: Plan; number: number } | null> {
  const newest = await newestEdition(actor.networkId);
  return newest && { plan: newest.plan, number: newest.number };
}

/**
 * The newest edition for a page whose draft stands at `change`: the plan is null where it is the draft as it was at that change,
 * as after every publication that nobody's edit came after; it has the files alone that it uses. Null before the first edition.
 */
export async function editionFor(
  actor: Actor,
  change: number,
): Promise<{ readonly number: number; readonly plan: Plan | null } | null> {
  const newest = await newestEdition(actor.networkId);
  if (!newest) return null;
  return { number: newest.number, plan: isDraftAt(newest, change) ? null : withUsedMedia(newest.plan) };
}

/** An edition's plan with the files alone that it uses. Throws 404 for one that there is not, or that is not kept any more. */
export async function editionPlan({ networkId }: Actor, number: number): Promise<{ number: number; plan: Plan }> {
  const row = await EditionRow.findOne({ where: { networkId, number }, attributes: ['plan', 'format'] });
  if (!row) throw notFound('edition');
  return { number, plan: withUsedMedia(currentPlan(row.plan, row.format)) };
}

/** What was out at an instant, and from when to when. */
export interface OutThen {
  /** Null before the first edition, and where it was cleared away since. */
  readonly edition: { readonly number: number; readonly plan: Plan } | null;
  /** Whether an edition was out that is not kept any more. */
  readonly cleared: boolean;
  /** Null from the beginning on, and to this day. */
  readonly from: string | null;
  readonly to: string | null;
}

/** The edition that was out at an instant; its plan has the files alone that it uses. */
export async function editionAt({ networkId }: Actor, at: Date): Promise<OutThen> {
  const [row] = await EditionRow.findAll({
    where: { networkId, publishedAt: { [Op.lte]: at } },
    order: [['number', 'DESC']],
    limit: 1,
  });
  const next = await EditionRow.findOne({
    where: { networkId, publishedAt: { [Op.gt]: at } },
    attributes: ['number', 'publishedAt'],
    order: [['number', 'ASC']],
  });
  return {
    edition: row ? { number: row.number, plan: withUsedMedia(currentPlan(row.plan, row.format)) } : null,
    cleared: !row && (next?.number ?? 1) > 1,
    from: row?.publishedAt.toISOString() ?? null,
    to: next?.publishedAt.toISOString() ?? null,
  };
}

/** What the newest edition was compiled to; undefined before the first. */
export async function baseOf(newest: WholeEdition | null, within: Transaction): Promise<CompiledBase | undefined> {
  return newest ? { plan: newest.plan, screens: await publishedPrograms(newest.networkId, within) } : undefined;
}

/** How the next edition is published. */
export interface Publishing {
  /** The objects that go out; absent for all that waits. */
  readonly chosen?: readonly ObjectKey[] | undefined;
  /** What it is for. */
  readonly note?: string | undefined;
}

const noteSchema = z.string().trim().max(500, 'A note has at most 500 characters: say it in fewer.');

/**
 * Publishes the draft as the next edition, in one transaction: all of it, or nothing. `basedOn` is the last change that the
 * person has seen in the docket; where somebody changed the plan since, throws 409 instead of publishing what nobody reviewed;
 * 422 names what is missing. With a choice it is the newest edition with these objects as the draft has them, and what they need.
 */
export async function publishEdition(
  actor: Actor,
  basedOn: number,
  { chosen, note }: Publishing = {},
): Promise<{ number: number }> {
  const words = note === undefined ? null : readInput(noteSchema, note) || null;
  return inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const change = await seenChange(actor, basedOn, within);
    const draft = await loadPlan(actor.networkId, within);
    const newest = await newestEdition(actor.networkId, within);
    if (newest && isDraftAt(newest, change))
      throw new Refusal(409, `Nothing was changed since edition ${newest.number}: there is nothing to publish.`);
    const base = publishedBase(newest, draft);
    const plan = chosen ? chosenPlan(base, draft, chosen).plan : draft;
    if (plan === base)
      throw new Refusal(409, 'Nothing of this choice waits to be published: choose some of the changes that do.');
    const whole = samePlan(plan, sharing(plan, draft));
    const compiled = orThrow(await compile(plan, await baseOf(newest, within)));
    const upTo = whole ? change : (newest?.lastChange ?? 0);
    return write(actor, { plan, compiled, lastChange: upTo, whole, note: words, again: null }, within);
  });
}

/** The last change, where it is the one that a person has seen. Throws 409 where somebody changed the plan since. */
export async function seenChange(actor: Actor, basedOn: number, within: Transaction): Promise<number> {
  const change = await lastChange(actor.networkId, within);
  if (change !== basedOn)
    throw new Refusal(409, 'The plan changed since you opened the docket: review it again, then publish.');
  return change;
}

/** What changes are put on top of: the newest edition's plan, or before the first a network without anything in it. */
export const publishedBase = (newest: WholeEdition | null, draft: Plan): Plan =>
  newest?.plan ?? { ...emptyPlan(draft.network.name), network: draft.network };

/** Publishes an earlier edition again, as a new one. The docket then counts from that edition on. Throws 404 for none. */
export async function publishAgain(actor: Actor, number: number): Promise<{ number: number }> {
  return inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const old = await EditionRow.findOne({ where: { networkId: actor.networkId, number }, transaction: within });
    if (!old) throw notFound('edition');
    const plan = currentPlan(old.plan, old.format);
    const compiled = orThrow(await compile(plan));
    return write(actor, { plan, compiled, lastChange: old.lastChange, whole: true, again: number }, within);
  });
}

export interface NewEdition {
  readonly plan: Plan;
  readonly compiled: CompiledEdition;
  readonly lastChange: number;
  readonly whole: boolean;
  readonly again: number | null;
  readonly note?: string | null;
}

export async function write(
  actor: Actor,
  { plan, compiled, ...edition }: NewEdition,
  within: Transaction,
): Promise<{ number: number }> {
  const { networkId, personId } = actor;
  const before = await newestEdition(networkId, within);
  const number = (before?.number ?? 0) + 1;
  await writePrograms(compiled.programs, within);
  const row = await EditionRow.create(
    { networkId, personId, number, plan, format: FORMAT, ...edition },
    { transaction: within },
  );
  await EditionScreenRow.bulkCreate(
    [...compiled.screens].map(([screen, hash]) => ({ editionId: row.id, screen, hash })),
    { transaction: within },
  );
  await deliverNew({ id: row.id, plan }, before, within);
  await publish({ kind: 'edition', network: networkId }, within);
  return { number };
}

/** What players get of the newest edition: program hashes by screen id; empty before the first. */
export async function deliveredPrograms(networkId: string): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    `SELECT screen, coalesce(delivered, hash) AS hash FROM edition_screens
     WHERE edition_id = (SELECT id FROM editions WHERE network_id = $1 ORDER BY number DESC LIMIT 1)`,
    [networkId],
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}

/** Program hashes of the newest edition by screen id; empty before the first. */
export async function publishedPrograms(networkId: string, within?: Transaction): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    `SELECT screen, hash FROM edition_screens WHERE edition_id = (SELECT id FROM editions WHERE network_id = $1 ORDER BY number DESC LIMIT 1)`,
    [networkId],
    within,
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}
