import { closeDatabase, database, migrate, openQueue } from '@/database';
import type { Command } from './options';

/** Brings tables and queues up to date. */
export async function prepareDatabase(): Promise<string[]> {
  const done = await migrate(database());
  const queue = await openQueue();
  await queue.stop({ graceful: false, wait: true });
  return done;
}

export const command: Command = {
  usage: 'migrate',
  async run() {
    const done = await prepareDatabase();
    console.log(done.length > 0 ? `Migrated: ${done.join(', ')}` : 'The database is current.');
    await closeDatabase();
    return 0;
  },
};
