import { setTimeout as later } from 'node:timers/promises';
import pLimit, { type LimitFunction } from 'p-limit';
import type { Transaction } from 'sequelize';
import { Refusal } from '@/core';
import { NetworkRow, rows, transaction } from '@/database';
import { isCut } from '../trouble';

/**
 * Turns: one change of a network at a time, in all processes together. What is urgent does not wait for its turn: what takes long makes
 * way for it, and begins again afterwards.
 */

/** So many changes of one network wait at most: more would wait longer than anybody does. */
const MOST_WAITING = 200;

const lines = new Map<string, LimitFunction>();

async function inLine<T>(name: string, work: (within: Transaction) => Promise<T>): Promise<T> {
  const line = lines.get(name) ?? pLimit(1);
  lines.set(name, line);
  if (line.pendingCount >= MOST_WAITING)
    throw new Refusal(
      503,
      'Many changes of this network wait already: try again in some seconds. Nothing was changed.',
    );
  try {
    return await line(() => transaction(work));
  } finally {
    if (line.activeCount + line.pendingCount === 0 && lines.get(name) === line) lines.delete(name);
  }
}

/**
 * Changes one network in a transaction, when those of this process that came before are done. They wait here and not for the row's
 * lock, each with a connection of its own: so that a network that is busy leaves the others theirs. Throws 503 where too many wait.
 */
export const inTurn = <T>(networkId: string, work: (within: Transaction) => Promise<T>): Promise<T> =>
  inLine(networkId, work);

/** What the database shows of a connection whose work may be put aside. */
const MAKES_WAY = 'lanternpost, makes way';
/** After so many times of being put aside it is given up, with a sentence. */
const MOST_TIMES = 10;

/**
 * The same for work that takes long: what is urgent may put it aside, and then it begins again. So `work` may change nothing but the
 * database. Once it is done, and only its commit is left, it is not put aside any more: nothing is done twice.
 */
export async function inTurnMakingWay<T>(networkId: string, work: (within: Transaction) => Promise<T>): Promise<T> {
  for (let times = 1; ; times++) {
    let isDone = false;
    try {
      return await inTurn(networkId, async (within) => {
        await rows(`SET LOCAL application_name = '${MAKES_WAY}'`, [], within);
        const result = await work(within);
        await rows("SET LOCAL application_name = 'lanternpost'", [], within);
        isDone = true;
        return result;
      });
    } catch (error) {
      if (isDone || times === MOST_TIMES || !isCut(error)) throw error;
    }
  }
}

/** Does what is urgent: it waits for nothing of this process but what is urgent too. It takes its turn by `takeTurnFirst`. */
export const inUrgentTurn = <T>(networkId: string, work: (within: Transaction) => Promise<T>): Promise<T> =>
  inLine(`${networkId} urgent`, work);

/** Until the transaction ends, nobody else changes this network. Waits for others. Throws nothing where there is none. */
export async function takeTurn(networkId: string, within: Transaction): Promise<void> {
  await NetworkRow.findByPk(networkId, { transaction: within, lock: within.LOCK.UPDATE });
}

/** So long what is urgent waits for others, again and again, before it puts aside those that make way. */
const PATIENCE_MS = 100;

/** The same for what is urgent. */
export async function takeTurnFirst(networkId: string, within: Transaction): Promise<void> {
  const [me] = await rows<{ pid: number }>('SELECT pg_backend_pid() AS pid', [], within);
  const taken = takeTurn(networkId, within).then(() => true);
  taken.catch(() => undefined);
  while (!(await Promise.race([taken, later(PATIENCE_MS, false, { ref: false })])))
    await rows(
      `SELECT pg_terminate_backend(a.pid) FROM unnest(pg_blocking_pids($1)) AS b(pid) JOIN pg_stat_activity a ON a.pid = b.pid
       WHERE a.application_name = $2`,
      [me?.pid, MAKES_WAY],
    );
}
