import * as z from 'zod';
import type { Transaction } from 'sequelize';
import { chosenPlan, withByHand, type CompiledEdition } from '@/core/edition';
import {
  currentPlan,
  emptyPlan,
  patchesBetween,
  samePlan,
  sharing,
  withUsedMedia,
  type ObjectKey,
  type Plan,
} from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { EditionRow, publish, snapshot } from '@/database';
import { notFound } from '../errors';
import { demand, readInput, type Actor } from '../people';
import { clearedFirings, draftWithin, inForceNow, inTurnMakingWay, lastChange, refuseToSend, takeTurn } from '../plan';
import { compile } from './compile';
import { compileDraft, baseOf, freeze } from './freeze';
import { type Frozen, type WholeEdition, isDraftAt, newestEdition } from './frozen';
import { beginDue, carryInto, plannedWithin } from './planned-plans';
import { answerRequests } from './requests';

/** Publishes what waits, or an earlier edition again. */

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
