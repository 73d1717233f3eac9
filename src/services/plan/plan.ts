import { LRUCache } from 'lru-cache';
import type { Transaction } from 'sequelize';
import {
  LISTED_KINDS,
  chosenPlan,
  collectionOf,
  orThrow,
  patchesBetween,
  readPlan,
  sharing,
  withPatches,
  type Plan,
} from '@/core';
import { snapshot } from '@/database';
import type { Actor } from '../people';
import { changesSince } from './changes';
import { editWithin, lastChange, type EditResult } from './edits';
import { inForceNow } from './in-force';
import { loadPlan } from './objects';
import { inTurnMakingWay, takeTurn } from './turns';

/** The draft plan, and the number of the change that it stands at. */
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
export async function draftPlan({ networkId }: Actor): Promise<Draft> {
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

/** Makes a network's plan equal to a plan file, in one transaction: adds, changes and removes what differs. */
export async function importPlan(actor: Actor, document: unknown): Promise<EditResult> {
  const wanted = orThrow(readPlan(document));
  return inTurnMakingWay(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const now = await loadPlan(actor.networkId, within);
    // What is in force stays as it is: a file was written before it was fired, or knows nothing of it.
    const fired = await inForceNow(actor.networkId, Date.now(), within);
    const keys = fired.map(({ booking }) => ({ kind: 'booking', id: booking }) as const);
    const kept = chosenPlan(wanted, now, keys, { withPlaces: false }).plan;
    return editWithin(actor, patchesBetween(now, kept), within);
  });
}
