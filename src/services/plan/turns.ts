import pLimit, { type LimitFunction } from 'p-limit';
import type { Transaction } from 'sequelize';
import { Refusal } from '@/core';
import { transaction } from '@/database';

/** So many changes of one network wait at most: more would wait longer than anybody does. */
const MOST_WAITING = 200;

const lines = new Map<string, LimitFunction>();

/**
 * Changes one network in a transaction, when those of this process that came before are done. They wait here and not for the row's
 * lock, each with a connection of its own: so that a network that is busy leaves the others theirs. Throws 503 where too many wait.
 */
export async function inTurn<T>(networkId: string, work: (within: Transaction) => Promise<T>): Promise<T> {
  const line = lines.get(networkId) ?? pLimit(1);
  lines.set(networkId, line);
  if (line.pendingCount >= MOST_WAITING)
    throw new Refusal(
      503,
      'Many changes of this network wait already: try again in some seconds. Nothing was changed.',
    );
  try {
    return await line(() => transaction(work));
  } finally {
    if (line.activeCount + line.pendingCount === 0 && lines.get(networkId) === line) lines.delete(networkId);
  }
}
