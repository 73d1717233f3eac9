import { Refusal } from '@/core/refusal';
import { EditionRow, rows } from '@/database';
import { logger } from '@/log';
import type { Actor } from '../people';
import { inTurn, takeTurn } from '../plan';
import type { Publishing } from './publish';
import { beginDue } from './planned-plans';
import { beginnings, readReach, writeReach, type GoesOut } from './reach';
import { freezeNext, refuseSooner, withWaiting } from './waiting';

/**
 * Editions that go out by themselves: at an instant, or when the clock at each site shows a time. Players fetch one ahead and switch by
 * their own corrected clocks; the worker gives it its number when it is due everywhere.
 */

/** So many wait at most. */
const MOST = 10;

/** When one goes out: everywhere by then; and what clocks at each site show, where it goes by these. */
export interface PlannedFor {
  readonly at: string;
  readonly siteTime: string | null;
}

/**
 * Plans the draft as the next edition, or a choice of what waits: frozen now, out at its time, after all that is planned already.
 * `basedOn` as in publishing. Throws 409 if the plan was changed since, 422 for a time that can't be.
 */
export async function planEdition(
  actor: Actor,
  basedOn: number,
  goesOut: GoesOut,
  how: Publishing = {},
  now = Date.now(),
): Promise<{ id: string } & PlannedFor> {
  return freezeNext(actor, basedOn, how, now, async ({ plan, waiting }) => {
    if (waiting.length >= MOST)
      throw new Refusal(409, `${MOST} editions are waiting already. Publish or cancel one of them first.`);
    if (waiting.some(({ row }) => row.pilot))
      throw new Refusal(409, 'A pilot is running. Publish it everywhere or cancel it, then plan the next edition.');
    const { last, screens, siteTime } = readReach(goesOut, plan, now, { after: waiting.at(-1)?.row.plannedFor });
    const plannedFor = new Date(last);
    const told: PlannedFor = { at: plannedFor.toISOString(), siteTime };
    return { columns: { plannedFor, siteTime }, reach: screens, told };
  });
}

/** Moves one to another time; those that are planned keep their order. Throws 409 for one that goes by no time. */
export async function movePlanned(actor: Actor, id: string, goesOut: GoesOut, now = Date.now()): Promise<PlannedFor> {
  return withWaiting(actor, id, now, async (one, list, within) => {
    if (one.row.pilot) throw new Refusal(409, 'It is being piloted. Publish it everywhere, or cancel the pilot.');
    await refuseSooner(actor, one, within);
    const begun = await beginnings([one.id], within);
    if ((begun.get(one.id)?.getTime() ?? Infinity) <= now)
      throw new Refusal(409, 'It is out at some sites already. Publish it everywhere now, or cancel it.');
    const place = list.indexOf(one);
    const next = list[place + 1];
    const before = next && (await beginnings([next.id], within)).get(next.id);
    const after = list[place - 1]?.row.plannedFor;
    const { last, screens, siteTime } = readReach(goesOut, one.plan, now, { after, before });
    const plannedFor = new Date(last);
    await EditionRow.update({ plannedFor, siteTime }, { where: { id }, transaction: within });
    await writeReach(id, screens, within);
    return { at: plannedFor.toISOString(), siteTime };
  });
}

/** Gives all that is due everywhere its number, in every network; how many went out. A worker asks for it every second. */
export async function publishDue(now = new Date()): Promise<number> {
  const due = await rows<{ network: string }>(
    'SELECT DISTINCT network_id AS network FROM editions WHERE number IS NULL AND planned_for <= $1',
    [now],
  );
  let count = 0;
  for (const { network } of due)
    count += await inTurn(network, async (within) => {
      await takeTurn(network, within);
      return beginDue(network, now, within);
    });
  if (count > 0) logger.info({ count }, 'planned editions went out');
  return count;
}
