import { LRUCache } from 'lru-cache';
import type { Transaction } from 'sequelize';
import { chosenPlan } from '@/core/edition';
import {
  LISTED_KINDS,
  changeSentences,
  collectionOf,
  namesIn,
  objectIn,
  patchesBetween,
  readPlan,
  sharing,
  withPatches,
  type Kind,
  type Plan,
} from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { snapshot, uuidv7 } from '@/database';
import { demand, type Actor } from '../people';
import { changesSince } from './changes';
import { editWithin, lastChange, type EditResult } from './edits';
import { inForceNow } from './in-force';
import { loadPlan } from './objects';
import { inTurnMakingWay, takeTurn } from './turns';

/** The draft plan, and the number of its last change. */
export interface Draft {
  readonly plan: Plan;
  readonly change: number;
}

/** Drafts that were read last, by network. The number of the last change says whether one still stands: every edit leaves a change. */
const remembered = new LRUCache<string, Draft>({ max: 16 });

/**
 * A network's plan as it is being made. It is shared between callers: they may not change it. One that is known is moved on by
 * the changes since, so that an edit costs what it changed.
 */
export async function draftPlan({ networkId }: Pick<Actor, 'networkId'>): Promise<Draft> {
  return snapshot((within) => draftWithin(networkId, within));
}

/** The same in a transaction that has the network's turn. Remembers nothing that may yet be taken back. */
export async function draftWithin(networkId: string, within: Transaction): Promise<Draft> {
  const change = await lastChange(networkId, within);
  const known = remembered.get(networkId);
  if (known?.change === change) return known;
  const since = known && known.change < change ? await changesSince(networkId, known.change, within) : null;
  const plan =
    known && since
      ? withPatches(
          known.plan,
          since.changes.map((one) => one.patch),
        )
      : await loadPlan(networkId, within);
  const draft = { plan: frozen(known ? sharing(known.plan, plan) : plan), change };
  if (change > 0) remembered.set(networkId, draft);
  return draft;
}

function frozen(plan: Plan): Plan {
  for (const kind of LISTED_KINDS) Object.freeze(plan[collectionOf(kind)]);
  return Object.freeze(plan);
}

/**
 * Makes a network's plan equal to a plan file, in one transaction and as one act: adds, changes and removes what differs. With `seen`, the
 * number of the change that it was looked at with: refused with 409 where the plan was changed since.
 */
export async function importPlan(actor: Actor, document: unknown, seen?: number): Promise<EditResult> {
  demand(actor, 'plan');
  const wanted = orThrow(readPlan(document));
  return inTurnMakingWay(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    if (seen !== undefined && (await lastChange(actor.networkId, within)) !== seen)
      throw new Refusal(409, 'The plan has changed since you looked at this file. Read the file again.');
    const { now, then } = await plansOf(actor, wanted, within);
    return editWithin(actor, patchesBetween(now, then), within, { id: uuidv7() });
  });
}

/** The plan as it is, and as a plan file would make it. */
async function plansOf({ networkId }: Actor, wanted: Plan, within: Transaction) {
  const now = await loadPlan(networkId, within);
  // What is in force stays as it is: a file was written before it was fired, or knows nothing of it.
  const fired = await inForceNow(networkId, Date.now(), within);
  const keys = fired.map(({ booking }) => ({ kind: 'booking', id: booking }) as const);
  return { now, then: chosenPlan(wanted, now, keys, { withPlaces: false }).plan };
}

/** What becomes of one thing of the plan, in words. */
export interface PlanChange {
  readonly kind: Kind;
  readonly id: string;
  readonly name: string;
  readonly what: 'added' | 'changed' | 'removed';
  /** What became of it, a phrase for each field: `priority 4, was 3`. Empty where it was added or removed. */
  readonly sentences: readonly string[];
}

/** What a plan file would make of the plan; `changes` are the first of `count`. */
export interface PlanLook {
  /** The number of the change that it was looked at with. */
  readonly change: number;
  readonly count: number;
  readonly changes: readonly PlanChange[];
}

const MOST_TOLD = 300;

/** What `importPlan` would do, without doing it. Throws as it does where the file can't be read. */
export async function lookAtPlan(actor: Actor, document: unknown): Promise<PlanLook> {
  demand(actor, 'plan');
  const wanted = orThrow(readPlan(document));
  return snapshot(async (within) => {
    const change = await lastChange(actor.networkId, within);
    const { now, then } = await plansOf(actor, wanted, within);
    const patches = patchesBetween(now, then);
    const names = namesIn(then);
    const told = patches.slice(0, MOST_TOLD).map(({ kind, id = '' }): PlanChange => {
      const [before, after] = [objectIn(now, kind, id) ?? null, objectIn(then, kind, id) ?? null];
      return {
        ...{ kind, id, name: (after ?? before)?.name ?? id },
        what: before ? (after ? 'changed' : 'removed') : 'added',
        sentences: changeSentences(kind, before, after, names),
      };
    });
    return { change, count: patches.length, changes: told };
  });
}
