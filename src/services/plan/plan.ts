import { LRUCache } from 'lru-cache';
import { readPlan, sharing, type Plan, type Problem } from '@/core';
import { snapshot, transaction } from '@/database';
import { ServiceError } from '../errors';
import type { Actor } from '../people';
import { editWithin, lastChange, type Edit, type EditResult } from './edits';
import { COLLECTION, loadPlan, type ObjectKind } from './records';

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
    const { plan } = await loadPlan(networkId, within);
    const draft = { plan: frozen(known ? sharing(known.plan, plan) : plan), change };
    if (change > 0) remembered.set(networkId, draft);
    return draft;
  });
}

function frozen(plan: Plan): Plan {
  for (const list of Object.values(COLLECTION)) Object.freeze(plan[list]);
  return Object.freeze(plan);
}

/** Makes a network's plan equal to a plan file, in one transaction: adds, changes and removes what differs. */
export async function importPlan(actor: Actor, document: unknown): Promise<EditResult> {
  const read = readPlan(document);
  if ('errors' in read)
    throw new ServiceError(422, 'This plan file has mistakes: nothing was read.', read.errors as Problem[]);
  return transaction(async (within) => {
    const { plan: now } = await loadPlan(actor.networkId, within);
    return editWithin(actor, differences(now, read.plan), within);
  });
}

/** In this order every object finds what it refers to. */
const ORDER: readonly ObjectKind[] = ['calendar', 'media', 'playlist', 'site', 'screen', 'booking'];

/** The edits that lead from one plan to another. Playlists come before those that nest them. */
function differences(from: Plan, to: Plan): Edit[] {
  const edits: Edit[] = [];
  for (const kind of ORDER) {
    const list = kind === 'playlist' ? nestedFirst(to.playlists) : to[COLLECTION[kind]];
    for (const { id, ...document } of list) edits.push({ kind, id, document });
  }
  edits.push({ kind: 'network', document: to.network });
  for (const kind of [...ORDER].reverse()) {
    const kept = new Set(to[COLLECTION[kind]].map((entry) => entry.id));
    const old = kind === 'playlist' ? nestedFirst(from.playlists).reverse() : from[COLLECTION[kind]];
    for (const { id } of old) if (!kept.has(id)) edits.push({ kind, id, document: null });
  }
  return edits;
}

function nestedFirst(playlists: Plan['playlists']): Plan['playlists'] {
  const byId = new Map(playlists.map((playlist) => [playlist.id, playlist]));
  const ordered = new Set<Plan['playlists'][number]>();
  const visit = (playlist: Plan['playlists'][number]): void => {
    for (const item of playlist.items) {
      const nested = item.playlist === undefined ? undefined : byId.get(item.playlist);
      if (nested && !ordered.has(nested)) visit(nested);
    }
    ordered.add(playlist);
  };
  playlists.forEach(visit);
  return [...ordered];
}
