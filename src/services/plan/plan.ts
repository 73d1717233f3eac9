import { readPlan, type Plan, type Problem } from '@/core';
import { transaction } from '@/database';
import { ServiceError } from '../errors';
import type { Actor } from '../people';
import { editWithin, lastChange, type Edit, type EditResult } from './edits';
import { COLLECTION, loadPlan, type ObjectKind } from './records';

/** The draft plan, and the number of the change that it stands at. */
export interface Draft {
  readonly plan: Plan;
  readonly change: number;
}

export async function draftPlan(actor: Actor): Promise<Draft> {
  return transaction(async (within) => ({
    plan: (await loadPlan(actor.networkId, within)).plan,
    change: await lastChange(actor.networkId, within),
  }));
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
