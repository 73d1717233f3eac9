import type { Transaction } from 'sequelize';
import { samePlan, sharing, type Plan } from '@/core/plan';
import { orThrow } from '@/core/refusal';
import { EditionRow, publish, rows } from '@/database';
import { compile } from './compile';
import { carryReach } from './reach';
import { baseOf, freeze } from './freeze';
import { frozen, newestEdition, type Frozen } from './frozen';

/** Planned editions, and how a publication before them changes what they hold. Call these in the network's turn. */

/** One that waits. */
export interface PlannedPlan extends Frozen {
  readonly row: EditionRow;
}

/** What waits in a network, the earliest first. */
export async function plannedWithin(networkId: string, within?: Transaction): Promise<PlannedPlan[]> {
  const found = await EditionRow.findAll({
    where: { networkId, number: null },
    attributes: { exclude: ['plan'] },
    order: [['plannedFor', 'ASC NULLS FIRST']],
    transaction: within,
  });
  const list: PlannedPlan[] = [];
  for (const row of found) list.push({ ...(await frozen(row, within)), row });
  return list;
}

/** The edition on top of which changes are collected: the last that is planned, or the newest. Null before the first. */
export async function topEdition(networkId: string, within?: Transaction): Promise<Frozen | null> {
  return (await plannedWithin(networkId, within)).at(-1) ?? (await newestEdition(networkId, within));
}

/**
 * Makes new plans for the planned editions, so that they include an edition that goes out before them. An edition never changes, so each one
 * is written again with its time, author and note. `draft` is the draft at a change.
 */
export async function carryInto(
  planned: readonly PlannedPlan[],
  made: (plan: Plan) => Plan,
  draft: { readonly plan: Plan; readonly change: number },
  within: Transaction,
): Promise<void> {
  for (const one of planned) {
    const plan = made(one.plan);
    if (plan === one.plan) continue;
    const compiled = orThrow(await compile(plan, await baseOf(one, within)));
    const whole = samePlan(plan, sharing(plan, draft.plan));
    const { networkId, personId, plannedFor, siteTime, pilot, publishedAt, note, lastChange } = one.row;
    const id = await freeze(
      {
        ...{ networkId, personId, number: null, plannedFor, siteTime, publishedAt, note, again: null, plan, whole },
        pilot: pilot && { ...pilot, given: new Date().toISOString() },
        lastChange: whole ? draft.change : lastChange,
      },
      compiled,
      one,
      within,
    );
    await carryReach({ id: one.id, siteTime }, { id, plan }, within);
    await rows('UPDATE requests SET edition_id = $2 WHERE edition_id = $1', [one.id, id], within);
    await EditionRow.destroy({ where: { id: one.id }, transaction: within });
  }
}

/** Gives those that are due by an instant their numbers, in their order; how many. What players have to do with it they know already. */
export async function beginDue(networkId: string, now: Date, within: Transaction): Promise<number> {
  const begun = await rows(
    `UPDATE editions e SET number = o.number, published_at = e.planned_for
     FROM (SELECT id, row_number() OVER (ORDER BY planned_for)
         + coalesce((SELECT max(number) FROM editions WHERE network_id = $1), 0) AS number
       FROM editions WHERE network_id = $1 AND number IS NULL AND planned_for <= $2) AS o
     WHERE e.id = o.id RETURNING e.id`,
    [networkId, now],
    within,
  );
  if (begun.length > 0) await publish({ kind: 'edition', network: networkId }, within);
  return begun.length;
}
