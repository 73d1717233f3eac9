import { LRUCache } from 'lru-cache';
import { Op, type CreationAttributes, type Transaction } from 'sequelize';
import * as z from 'zod';
import {
  FORMAT,
  Refusal,
  chosenPlan,
  currentPlan,
  done,
  emptyPlan,
  orThrow,
  patchesBetween,
  samePlan,
  sharing,
  withByHand,
  withUsedMedia,
  type CompiledBase,
  type CompiledEdition,
  type ObjectKey,
  type Plan,
  type Result,
} from '@/core';
import { EditionRow, publish, rows, snapshot } from '@/database';
import { notFound } from '../errors';
import { demand, readInput, type Actor } from '../people';
import { clearedFirings, draftWithin, inForceNow, inTurnMakingWay, lastChange, refuseToSend, takeTurn } from '../plan';
import { counted } from './arrivals';
import { compile } from './compile';
import { deliverEdition, deliveredAsBefore } from './deliver';
import { beginDue, carryInto, plannedWithin } from './planned-plans';
import { writePrograms } from './programs';
import { answerRequests } from './requests';

/** One publication, as the list shows it. */
export interface Edition {
  /** The same as while it waited. */
  readonly id: string;
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
  /** How many of these were heard to play it while it was out, and when the last of them was first; null for none. */
  readonly reached: number;
  readonly reachedAt: string | null;
  /** When it was planned to go out; null where it was published at once. */
  readonly plannedFor: string | null;
}

/** A network's editions, newest first. */
export async function editions(actor: Actor): Promise<Edition[]> {
  interface Row extends Omit<Edition, 'publishedAt' | 'plannedFor' | 'reachedAt' | 'touched'> {
    readonly publishedAt: Date;
    readonly plannedFor: Date | null;
    readonly touched: number | null;
    readonly last: Date | null;
  }
  const found = await rows<Row>(
    `SELECT e.id, e.number, e.published_at AS "publishedAt", e.planned_for AS "plannedFor", p.name AS person, e.again, e.whole, e.note,
       e.touched, e.reached, e.last_reached AS last
     FROM editions e LEFT JOIN people p ON p.id = e.person_id
     WHERE e.network_id = $1 AND e.number IS NOT NULL ORDER BY e.number DESC LIMIT 100`,
    [actor.networkId],
  );
  const list: Edition[] = [];
  for (const { publishedAt, plannedFor, touched, reached, last, ...row } of found) {
    // The newest ones still arrive, so they are counted now.
    const now = touched === null ? await counted(row.id) : { touched, reached, last };
    list.push({
      ...row,
      ...{ touched: now.touched, reached: now.reached, reachedAt: now.last?.toISOString() ?? null },
      ...{ publishedAt: publishedAt.toISOString(), plannedFor: plannedFor?.toISOString() ?? null },
    });
  }
  return list;
}

/** An edition that is out, or planned, as a whole. Its plan is shared between callers: they may not change it. */
export interface Frozen {
  readonly id: string;
  readonly networkId: string;
  /** All changes up to this one are in it. */
  readonly lastChange: number;
  readonly again: number | null;
  readonly whole: boolean;
  readonly plan: Plan;
}

/** One that is out. */
export interface WholeEdition extends Frozen {
  readonly number: number;
  readonly publishedAt: Date;
}

/** Whether an edition equals the draft as it was at a change. */
export const isDraftAt = ({ lastChange, again, whole }: Frozen, change: number) =>
  whole && again === null && lastChange === change;

/** Plans of editions by the edition's id: an edition never changes. */
const remembered = new LRUCache<string, Plan>({ max: 16 });

/** What was published: no edition that is planned. */
export const isOut = { number: { [Op.not]: null } };

/** The newest edition of a network, or null before the first. */
export async function newestEdition(networkId: string, within?: Transaction): Promise<WholeEdition | null> {
  const row = await EditionRow.findOne({
    where: { networkId, ...isOut },
    attributes: { exclude: ['plan'] },
    order: [['number', 'DESC']],
    transaction: within,
  });
  return row && { ...(await frozen(row, within)), number: row.number ?? 0, publishedAt: row.publishedAt };
}

/** An edition's row, which may lack its plan, with its plan as this program reads it. */
export async function frozen(row: EditionRow, within?: Transaction): Promise<Frozen> {
  const { id, networkId, lastChange: change, again, whole } = row;
  let plan = remembered.get(id);
  if (!plan) {
    const found = await EditionRow.findByPk(id, {
      attributes: ['plan', 'format'],
      transaction: within,
      rejectOnEmpty: true,
    });
    remembered.set(id, (plan = currentPlan(found.plan, found.format)));
  }
  return { id, networkId, lastChange: change, again, whole, plan };
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
 * The newest edition for a page whose draft is at `change`. The plan is null where it equals that draft, as right after a
 * publication. Otherwise the plan has only the files that it uses. Null before the first edition.
 */
export async function editionFor(
  actor: Actor,
  change: number,
): Promise<{ readonly number: number; readonly plan: Plan | null } | null> {
  const newest = await newestEdition(actor.networkId);
  if (!newest) return null;
  return { number: newest.number, plan: isDraftAt(newest, change) ? null : withUsedMedia(newest.plan) };
}

/** An edition's plan with only the files that it uses. Throws 404 if there is no such edition, or it was cleared away. */
export async function editionPlan({ networkId }: Actor, number: number): Promise<{ number: number; plan: Plan }> {
  const row = await EditionRow.findOne({ where: { networkId, number }, attributes: ['plan', 'format'] });
  if (!row) throw notFound('edition');
  return { number, plan: withUsedMedia(currentPlan(row.plan, row.format)) };
}

/** What was out at an instant, and from when to when. */
export interface OutThen {
  /** Null before the first edition, and where it was cleared away since. */
  readonly edition: { readonly number: number; readonly plan: Plan } | null;
  /** Whether an edition was published then that has been cleared away since. */
  readonly cleared: boolean;
  /** Null from the beginning on, and to this day. */
  readonly from: string | null;
  readonly to: string | null;
}

/** The edition that was out at an instant; its plan has the files alone that it uses. */
export async function editionAt({ networkId }: Actor, at: Date): Promise<OutThen> {
  const [row] = await EditionRow.findAll({
    where: { networkId, ...isOut, publishedAt: { [Op.lte]: at } },
    order: [['number', 'DESC']],
    limit: 1,
  });
  const next = await EditionRow.findOne({
    where: { networkId, ...isOut, publishedAt: { [Op.gt]: at } },
    attributes: ['number', 'publishedAt'],
    order: [['number', 'ASC']],
  });
  // An edition made by hand may have followed it and been cleared away since.
  const [gone] = await rows<{ number: number; from: Date }>(
    `SELECT number, published_at AS from FROM cleared_editions WHERE network_id = $1 AND published_at <= $2
     ORDER BY published_at DESC LIMIT 1`,
    [networkId, at],
  );
  const isGone = gone !== undefined && gone.number > (row?.number ?? 0);
  const [nextGone] = await rows<{ from: Date }>(
    `SELECT published_at AS from FROM cleared_editions WHERE network_id = $1 AND published_at > $2 ORDER BY published_at LIMIT 1`,
    [networkId, at],
  );
  const ends = [next?.publishedAt, nextGone?.from].flatMap((one) => (one ? [one.getTime()] : []));
  const from = isGone ? gone.from : row?.publishedAt;
  return {
    edition:
      row?.number && !isGone ? { number: row.number, plan: withUsedMedia(currentPlan(row.plan, row.format)) } : null,
    cleared: isGone || (!row && (next?.number ?? 1) > 1),
    from: from?.toISOString() ?? null,
    to: ends.length > 0 ? new Date(Math.min(...ends)).toISOString() : null,
  };
}

/** Compiled drafts, by change and base edition: people publish right after the docket was counted. Few are kept, since they are large. */
const compiledDrafts = new LRUCache<string, CompiledEdition>({ max: 2 });

/** Compiles the draft at a change on top of an edition, once for both the docket and the publication. Throws as `compile` does. */
export async function compileDraft(
  networkId: string,
  { plan, change }: { readonly plan: Plan; readonly change: number },
  edition: Frozen | null,
  within?: Transaction,
): Promise<Result<CompiledEdition>> {
  const key = `${networkId} ${edition?.id ?? ''} ${change}`;
  const known = compiledDrafts.get(key);
  if (known) return done(known);
  const compiled = await compile(plan, await baseOf(edition, within));
  if (compiled.ok) compiledDrafts.set(key, compiled.value);
  return compiled;
}

/** What an edition was compiled to; undefined for none. */
export async function baseOf(edition: Frozen | null, within?: Transaction): Promise<CompiledBase | undefined> {
  return edition ? { plan: edition.plan, screens: await programsOf(edition.id, within) } : undefined;
}

/** Program hashes of an edition by screen id. */
export async function programsOf(id: string, within?: Transaction): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    'SELECT screen, hash FROM edition_screens WHERE edition_id = $1',
    [id],
    within,
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}

/** How the next edition is published. */
export interface Publishing {
  /** The objects that go out; absent for all that waits. */
  readonly chosen?: readonly ObjectKey[] | undefined;
  /** What it is for. */
  readonly note?: string | undefined;
}

const noteSchema = z.string().trim().max(500, 'A note has at most 500 characters. Shorten it.');

/** What a publication says of itself; null for nothing. Throws 422 where it is too long. */
export const readNote = (note: string | undefined): string | null =>
  note === undefined ? null : readInput(noteSchema, note) || null;

/**
 * Publishes the draft as the next edition, in one transaction: all of it, or nothing. `basedOn` is the last change that the
 * person has seen in the docket. If the plan was changed since, this throws 409, so that nothing is published without review;
 * 422 names what is missing. With a choice it is the newest edition with these objects as the draft has them, and what they need.
 */
export async function publishEdition(
  actor: Actor,
  basedOn: number,
  { chosen, note }: Publishing = {},
): Promise<{ number: number }> {
  demand(actor, 'publish');
  const words = readNote(note);
  return inTurnMakingWay(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const change = await seenChange(actor, basedOn, within);
    const { plan: draft } = await draftWithin(actor.networkId, within);
    await beginDue(actor.networkId, new Date(), within);
    const newest = await newestEdition(actor.networkId, within);
    const planned = await plannedWithin(actor.networkId, within);
    const top = planned.at(-1) ?? newest;
    if (top && isDraftAt(top, change)) throw nothingWaits(newest, planned.length);
    const base = publishedBase(newest, draft);
    // What is planned has what goes out before it too, and keeps its own changes to itself until its time.
    const keys = chosen ?? (planned.length > 0 ? differingKeys(publishedBase(top, draft), draft) : undefined);
    const plan = keys ? chosenPlan(base, draft, keys).plan : draft;
    const carried = (one: Plan) => (keys ? chosenPlan(one, draft, keys).plan : one);
    // The change may only take something back out of a planned edition.
    if (plan === base && planned.every((one) => carried(one.plan) === one.plan))
      throw new Refusal(409, 'These changes are all published already. Choose some that aren’t.');
    await refuseToSend(actor, { before: base, after: plan }, within);
    const whole = samePlan(plan, sharing(plan, draft));
    const compiled = orThrow(
      plan === draft
        ? await compileDraft(actor.networkId, { plan, change }, newest, within)
        : await compile(plan, await baseOf(newest, within)),
    );
    const upTo = whole ? change : (newest?.lastChange ?? 0);
    const written = await write(actor, { plan, compiled, lastChange: upTo, whole, note: words, again: null }, within);
    const last = planned.at(-1);
    const sent = last ? carried(last.plan) : plan;
    await answerRequests(actor, { edition: written.id, plan: sent, draft }, within);
    if (keys) await carryInto(planned, carried, { plan: draft, change }, within);
    return { number: written.number };
  });
}

/** That nothing was changed since what went out last, or is planned to. */
export const nothingWaits = (newest: WholeEdition | null, planned: number): Refusal =>
  new Refusal(
    409,
    planned > 0
      ? 'Nothing has changed since the planned edition. Publish that one now, or wait for its time.'
      : `Nothing has changed since edition ${newest?.number ?? 0}, so there’s nothing to publish.`,
  );

const differingKeys = (from: Plan, to: Plan): ObjectKey[] =>
  patchesBetween(from, sharing(from, to)).map(({ kind, id = '' }) => ({ kind, id }));

/** The last change, if it is the one that the person has seen. Throws 409 if the plan was changed since. */
export async function seenChange(actor: Actor, basedOn: number, within: Transaction): Promise<number> {
  const change = await lastChange(actor.networkId, within);
  if (change !== basedOn)
    throw new Refusal(409, 'The plan has changed since you opened this page. Review the changes again, then publish.');
  return change;
}

/** What changes are put on top of: an edition's plan, or before the first a network without anything in it. */
export const publishedBase = (newest: Frozen | null, draft: Plan): Plan =>
  newest?.plan ?? { ...emptyPlan(draft.network.name), network: draft.network };

/**
 * Publishes an earlier edition again, as a new one, with what is in force or put on laid over it. The docket then counts from that edition on.
 * `seen` is the newest edition that the person has compared it with. Throws 404 for none, 409 while some screens try another, which they
 * would keep, and where another edition was published since.
 */
export async function publishAgain(
  actor: Actor,
  number: number,
  { seen, now = Date.now() }: { readonly seen?: number | undefined; readonly now?: number } = {},
): Promise<{ number: number }> {
  demand(actor, 'publish');
  return inTurnMakingWay(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    await beginDue(actor.networkId, new Date(now), within);
    if ((await plannedWithin(actor.networkId, within)).some(({ row }) => row.pilot))
      throw new Refusal(
        409,
        'A pilot is running, and its screens would keep their edition. Cancel the pilot or publish it everywhere first.',
      );
    const newest = await newestEdition(actor.networkId, within);
    if (seen !== undefined && newest?.number !== seen)
      throw new Refusal(
        409,
        `Edition ${newest?.number ?? 0} was published in the meantime. Check the changes again, then publish.`,
      );
    const { plan, lastChange: upTo } = await againWithin(actor, number, newest, now, within);
    if (newest) await refuseToSend(actor, { before: newest.plan, after: plan }, within);
    const compiled = orThrow(await compile(plan, await baseOf(newest, within)));
    const { number: made } = await write(
      actor,
      { plan, compiled, lastChange: upTo, whole: true, again: number },
      within,
    );
    return { number: made };
  });
}

async function againWithin(
  { networkId }: Actor,
  number: number,
  newest: WholeEdition | null,
  now: number,
  within: Transaction,
): Promise<{ readonly plan: Plan; readonly lastChange: number }> {
  const old = await EditionRow.findOne({ where: { networkId, number }, transaction: within });
  if (!old) throw notFound('edition');
  const plan = await withWhatIsOn(currentPlan(old.plan, old.format), newest, now, within);
  return { plan, lastChange: old.lastChange };
}

/** The plan that would go out if an edition were published again now, with the files alone that it uses. Throws 404 for none. */
export async function planAgain(actor: Actor, number: number, now = Date.now()): Promise<Plan> {
  return snapshot(async (within) => {
    const newest = await newestEdition(actor.networkId, within);
    return withUsedMedia((await againWithin(actor, number, newest, now, within)).plan);
  });
}

/**
 * A plan that is about to go out, with what people have done by hand on the glass, as `withByHand` says: what is in force and what was put on
 * stays, and nothing of it that was ended comes back. `newest` is what is out; nothing is done by hand before the first edition.
 */
export async function withWhatIsOn(
  plan: Plan,
  newest: WholeEdition | null,
  now: number,
  within: Transaction,
): Promise<Plan> {
  if (!newest) return plan;
  const { networkId } = newest;
  const fired = plan.bookings.filter(({ takeover, onHold }) => takeover && !onHold).map(({ id }) => id);
  return withByHand(
    plan,
    {
      inForce: await inForceNow(networkId, now, within),
      cleared: await clearedFirings(networkId, fired, within),
      glass: newest.plan,
    },
    now,
  );
}

export interface NewEdition {
  /** Whether it is one of those that are made by hand, beside what is planned: they are kept for a shorter time. */
  readonly aside?: boolean;
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
): Promise<{ id: string; number: number }> {
  const { networkId, personId } = actor;
  const before = await newestEdition(networkId, within);
  const number = (before?.number ?? 0) + 1;
  const id = await freeze({ networkId, personId, number, plan, ...edition }, compiled, before, within);
  await publish({ kind: 'edition', network: networkId }, within);
  return { id, number };
}

/** Writes an edition's row, its programs, and what its screens get of them. `before` is what they have until then. */
export async function freeze(
  edition: Omit<CreationAttributes<EditionRow>, 'format' | 'plan'> & { readonly plan: Plan },
  { screens, made }: CompiledEdition,
  before: Frozen | null,
  within: Transaction,
): Promise<string> {
  await writePrograms(made, within);
  const { id } = await EditionRow.create({ ...edition, format: FORMAT }, { transaction: within });
  const { plan } = edition;
  const known = await deliveredAsBefore({ plan, screens }, before, within);
  const ids = [...screens.keys()];
  await rows(
    'INSERT INTO edition_screens (edition_id, screen, hash, delivered) SELECT $1, * FROM unnest($2::text[], $3::text[], $4::text[])',
    [id, ids, [...screens.values()], ids.map((screen) => known.get(screen) ?? null)],
    within,
  );
  const only = new Set(plan.screens.map((screen) => screen.id).filter((screen) => !known.has(screen)));
  if (only.size > 0) await deliverEdition({ id, plan, only, compiled: made }, within);
  remembered.set(id, plan);
  return id;
}

/** What players get by now, of the newest edition or one that waits and has reached a screen: program hashes by screen id; empty before the first. */
export async function deliveredPrograms(networkId: string): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    `SELECT DISTINCT ON (s.screen) s.screen, coalesce(s.delivered, s.hash) AS hash
     FROM editions e JOIN edition_screens s ON s.edition_id = e.id
     WHERE e.network_id = $1 AND (e.number = (SELECT max(number) FROM editions WHERE network_id = $1)
       OR e.number IS NULL AND coalesce(s.from_at, e.planned_for) <= now())
     ORDER BY s.screen, e.number DESC NULLS FIRST, e.planned_for DESC`,
    [networkId],
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}

/** Program hashes of the newest edition by screen id; empty before the first. */
export async function publishedPrograms(networkId: string, within?: Transaction): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    `SELECT screen, hash FROM edition_screens WHERE edition_id = (SELECT id FROM editions
       WHERE network_id = $1 AND number IS NOT NULL ORDER BY number DESC LIMIT 1)`,
    [networkId],
    within,
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}
