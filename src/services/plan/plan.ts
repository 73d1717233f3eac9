import { LRUCache } from 'lru-cache';
import {
  LISTED_KINDS,
  NETWORK_ID,
  collectionOf,
  orThrow,
  patchOf,
  readPlan,
  sharing,
  withEntryIds,
  kindOf,
  type AnyDocument,
  type Kind,
  type LoosePatch,
  type Plan,
} from '@/core';
import { snapshot, transaction } from '@/database';
import type { Actor } from '../people';
import { editWithin, lastChange, takeTurn, type EditResult } from './edits';
import { loadPlan } from './objects';

/** The draft plan, and the number of the change that it stands at. */
export interface Draft {
  readonly plan: Plan;
  readonly change: number;
}

/** Drafts that were read last, by network. The number of the last change says whether one still stands: every edit leaves a change. */
const remembered = new LRUCache<string, Draft>({ max: 16 });

/** A network's plan as it is being made. It is shared between callers: they may not change it. */
export async function draftPlan({ networkId }: Actor): Promise<Draft> {
  return snapshot(async (within) => {
    const change = await lastChange(networkId, within);
    const known = remembered.get(networkId);
    if (known?.change === change) return known;
    const plan = await loadPlan(networkId, within);
    const draft = { plan: frozen(known ? sharing(known.plan, plan) : plan), change };
    if (change > 0) remembered.set(networkId, draft);
    return draft;
  });
}

function frozen(plan: Plan): Plan {
  for (const kind of LISTED_KINDS) Object.freeze(plan[collectionOf(kind)]);
  return Object.freeze(plan);
}

/** Makes a network's plan equal to a plan file, in one transaction: adds, changes and removes what differs. */
export async function importPlan(actor: Actor, document: unknown): Promise<EditResult> {
  const wanted = orThrow(readPlan(document));
  return transaction(async (within) => {
    await takeTurn(actor.networkId, within);
    const now = await loadPlan(actor.networkId, within);
    return editWithin(actor, differences(now, wanted), within);
  });
}

/** The patches that lead from one plan to another. Entries that say the same keep their ids. */
function differences(from: Plan, to: Plan): LoosePatch[] {
  const network = patchOf('network', NETWORK_ID, from.network, to.network);
  const lists = LISTED_KINDS.flatMap((kind) => {
    const [old, next]: readonly AnyDocument[][] = [from[collectionOf(kind)], to[collectionOf(kind)]];
    const before = new Map(old?.map((one) => [idOf(one), one]));
    const after = new Map(next?.map((one) => [idOf(one), one]));
    return [...new Set([...before.keys(), ...after.keys()])].flatMap((id) => {
      const was = before.get(id) ?? null;
      const is = after.get(id) ?? null;
      return patchOf(kind, id, was, is && keepingEntries(kind, was, is)) ?? [];
    });
  });
  return [...(network ? [network] : []), ...lists];
}

const idOf = (document: AnyDocument) => ('id' in document ? document.id : NETWORK_ID);

function keepingEntries(kind: Kind, before: object | null, after: object): object {
  return Object.keys(kindOf(kind).entries ?? {}).reduce((made, field) => {
    const [old, next] = [before, made].map((one) => (one as Record<string, object[]> | null)?.[field] ?? []);
    return { ...made, [field]: withEntryIds((next ?? []) as never[], (old ?? []) as never[]) };
  }, after);
}
