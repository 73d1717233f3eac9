import { join } from 'node:path';
import { readPlan, type Booking, type Plan } from '@/core/plan';
import { PERMISSIONS } from '@/core/roles';
import type { Actor } from '@/services/people';
import { runningCluster } from '../../scripts/cluster.mjs';

/** The instance's own database, for looking behind the interface. */
export function bindDatabase(): void {
  process.env.DATABASE_URL = runningCluster(join(process.env.LANTERNPOST_E2E_DATA ?? '', 'postgres'));
}

/** The sample network, for the services. */
export async function ternholm(): Promise<Actor> {
  bindDatabase();
  const { NetworkRow, database } = await import('@/database');
  // Another test may have closed the connection: the models are bound to an open one.
  database();
  const network = await NetworkRow.findOne({ where: { slug: 'ternholm-line' } });
  return { networkId: network?.id ?? '', personId: null, name: '', may: PERMISSIONS };
}

/** The sample network's draft, as its services give it. */
export async function draft(): Promise<Plan> {
  const { draftPlan } = await import('@/services/plan');
  const { plan } = await draftPlan(await ternholm());
  const read = readPlan(plan);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

/** Books something beforehand, as another person would. */
export async function booked(id: string, values: Omit<Booking, 'id' | 'created'>): Promise<void> {
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'booking', id, add: { created: new Date().toISOString(), ...values } }]);
}

/** Its newest edition. */
export async function newest() {
  const { editions } = await import('@/services/editions');
  return (await editions(await ternholm()))[0];
}

/** What waits in it to go out. */
export async function planned() {
  const { plannedEditions } = await import('@/services/editions');
  return plannedEditions(await ternholm());
}

/** What each screen is given now: the hash of its program by its id. */
export async function given(): Promise<ReadonlyMap<string, string>> {
  const { deliveredPrograms } = await import('@/services/editions');
  return deliveredPrograms((await ternholm()).networkId);
}

/** A key of Ida's with these rights, as a program sends it. */
export async function key(rights: string[]): Promise<Record<string, string>> {
  const { makeKey } = await import('@/services/people');
  const { PersonRow } = await import('@/database');
  const ida = await PersonRow.findOne({ where: { email: 'ida@ternholm.example' }, rejectOnEmpty: true });
  const { token } = await makeKey(
    { ...(await ternholm()), personId: ida.id },
    { name: `Weather station ${rights.join()}`, rights },
  );
  return { authorization: `Bearer ${token}` };
}
