import { join, resolve } from 'node:path';
import { runningCluster } from '../scripts/cluster.mjs';
import { NetworkRow, closeBus, closeDatabase, database } from '@/database';
import { PERMISSIONS } from '@/core/roles';
import type { Actor } from '@/services/people';
import { cannot, orRefuse } from './plan-file';

/** Who a network's history names where a command did it: whoever runs the server may do everything. */
export const COMMAND_LINE = { personId: null, name: 'the command line', may: PERMISSIONS };

/** The network that a command works on: the named one, or the only one. Throws Refusal. */
export async function actorFor(slug: string | undefined): Promise<Actor> {
  const networks = await NetworkRow.findAll({ where: slug ? { slug } : {} });
  const [network] = networks;
  if (!network)
    throw cannot(
      '/network',
      `There’s no network ${slug ?? ''} in this database. Type lanternpost network list to see them.`,
    );
  if (networks.length > 1)
    throw cannot('/network', `Name one with --network: ${networks.map((one) => one.slug).join(', ')}.`);
  return { networkId: network.id, ...COMMAND_LINE };
}

/**
 * Runs a command against the database at DATABASE_URL, or the private one of the data folder while `start` runs it. Errors are
 * printed, and exit 2.
 */
export async function withDatabase(work: () => Promise<number>): Promise<number> {
  try {
    return await orRefuse(async () => {
      process.env.DATABASE_URL ||= ownDatabase();
      database();
      return work();
    });
  } finally {
    await closeBus();
    await closeDatabase();
  }
}

function ownDatabase(): string {
  const data = resolve(process.env.LANTERNPOST_DATA ?? 'data');
  try {
    return runningCluster(join(data, 'postgres'));
  } catch {
    throw cannot(
      '',
      `There is no database. Start Lanternpost with the data folder ${data}, or set LANTERNPOST_DATA or DATABASE_URL.`,
    );
  }
}
