import { setTimeout as later } from 'node:timers/promises';
import pLimit, { type LimitFunction } from 'p-limit';
import type { Transaction } from 'sequelize';
import { Refusal } from '@/core/refusal';
import { NetworkRow, rows, transaction } from '@/database';
import { isCut } from '../trouble';

/**
 * Turns: one change of a network at a time, across all processes. Urgent work does not wait for its turn: long work stops for it, and
 * starts again afterwards.
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
      'Many changes of this network are waiting already. Nothing was changed. Try again in some seconds.',
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

/** The name under which the database lists a connection whose work may be stopped. */
const MAKES_WAY = 'lanternpost, makes way';
/** Work that was stopped this often is given up: the person gets an error. */
const MOST_TIMES = 10;

/**
 * The same for long work: urgent work may stop it, and then it starts again. So `work` may change nothing but the database. When only its
 * commit is left it can no longer be stopped, so nothing is done twice.
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

/** The same for urgent work. It has the turn when `work` begins, and waits only for other urgent work and for short changes. */
export const inUrgentTurn = <T>(networkId: string, work: (within: Transaction) => Promise<T>): Promise<T> =>
  inLine(`${networkId} urgent`, async (within) => {
    await takeTurnFirst(networkId, within);
    return work(within);
  });

/** Waits until no other change of this network is running, and keeps others waiting until the transaction ends. */
export async function takeTurn(networkId: string, within: Transaction): Promise<void> {
  await NetworkRow.findByPk(networkId, { transaction: within, lock: within.LOCK.UPDATE });
}

/** How long urgent work waits before it stops the long work ahead of it, in milliseconds. */
const PATIENCE_MS = 100;

/** The same, but stops long work that holds the turn. */
async function takeTurnFirst(networkId: string, within: Transaction): Promise<void> {
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
