import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readPlan, type Plan } from '@/core';

/** The instance's own database, for looking behind the interface. */
export function bindDatabase(): void {
  const data = process.env.LANTERNPOST_E2E_DATA ?? '';
  const [, , , port] = readFileSync(join(data, 'postgres/postmaster.pid'), 'utf8').split('\n');
  process.env.DATABASE_URL = `postgres://lanternpost@127.0.0.1:${port ?? ''}/lanternpost`;
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
