import { join } from 'node:path';
import { readPlan, type Plan } from '@/core';
import { runningCluster } from '../../scripts/cluster.mjs';

/** The instance's own database, for looking behind the interface. */
export function bindDatabase(): void {
  process.env.DATABASE_URL = runningCluster(join(process.env.LANTERNPOST_E2E_DATA ?? '', 'postgres'));
}

/** The sample network's draft, as its services give it. */
export async function draft(): Promise<Plan> {
  bindDatabase();
  const { NetworkRow, database } = await import('@/database');
  // Another test may have closed the connection: the models are bound to an open one.
  database();
  const { draftPlan } = await import('@/services/plan');
  const network = await NetworkRow.findOne({ where: { slug: 'ternholm-line' } });
  const { plan } = await draftPlan({ networkId: network?.id ?? '', personId: null, name: '' });
  const read = readPlan(plan);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}
