import type { Transaction } from 'sequelize';
import { NETWORK_ID } from '@/core/plan';
import { NetworkRow, transaction } from '@/database';
import { writeObjects } from './objects';

/** Makes a network in which nothing is decided but its name. `slug` is its id for the command line. Returns its row id. */
export async function createNetwork(
  { name, slug }: { readonly name: string; readonly slug: string },
  within?: Transaction,
): Promise<string> {
  if (!within) return transaction((made) => createNetwork({ name, slug }, made));
  const { id } = await NetworkRow.create({ slug }, { transaction: within });
  await writeObjects(id, [{ kind: 'network', id: NETWORK_ID, before: null, after: { name } }], within);
  return id;
}
