import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { closeBus, closeDatabase, closeQueue, database, migrate, openQueue } from '@/database';
import { closeUploadLocks } from '../library';
import { addPerson, type Actor } from '../people';
import { createNetwork, edit } from '../plan';

/** The name of the database that all test databases of this run are copies of: migrated once, with an empty queue. */
const TEMPLATE = process.env.LANTERNPOST_TEST_TEMPLATE ?? 'test_template';

const urlOf = (name: string) => `${process.env.LANTERNPOST_TEST_SERVER ?? ''}${name}`;

/** A database and a data folder of this test file's own, on the server that the test run started. */
export function useDatabase(): void {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const data = mkdtempSync(join(tmpdir(), 'lanternpost-test-'));
  const admin = async (work: (client: pg.Client) => Promise<unknown>) => {
    const client = new pg.Client({ connectionString: urlOf('lanternpost') });
    await client.connect();
    await work(client);
    await client.end();
  };
  beforeAll(async () => {
    process.env.LANTERNPOST_DATA = data;
    await admin(async (client) => {
      // Test files run side by side: the first one makes the template, the others wait for it.
      await client.query('SELECT pg_advisory_lock(1)');
      await makeTemplate(client);
      await client.query(`CREATE DATABASE ${name} TEMPLATE ${TEMPLATE}`);
    });
    process.env.DATABASE_URL = urlOf(name);
    database();
  }, 60_000);
  afterAll(async () => {
    await closeUploadLocks();
    await closeQueue();
    await closeBus();
    await closeDatabase();
    // No WITH (FORCE): it is refused to us while autovacuum is at work there, for which a plain DROP waits.
    await admin(async (client) => {
      await client.query(
        `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}' AND usename = current_user`,
      );
      await client.query(`DROP DATABASE ${name}`);
    });
    rmSync(data, { recursive: true, force: true });
  });
}

/** Makes the template, if this run has none yet. It gets its name once it is complete and no connection to it is left. */
async function makeTemplate(client: pg.Client): Promise<void> {
  const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [TEMPLATE]);
  if (rowCount !== 0) return;
  const unfinished = `${TEMPLATE}_${randomUUID().slice(0, 8)}`;
  await client.query(`CREATE DATABASE ${unfinished}`);
  process.env.DATABASE_URL = urlOf(unfinished);
  await migrate(database());
  await (await openQueue()).stop({ graceful: false, wait: true });
  await closeQueue();
  await closeDatabase();
  await client.query(`ALTER DATABASE ${unfinished} RENAME TO ${TEMPLATE}`);
}

let count = 0;

/** A network with one person. */
export async function newNetwork(name = `Network ${++count}`): Promise<Actor> {
  const networkId = await createNetwork({ name, slug: `network-${randomUUID().slice(0, 8)}` });
  return addPerson(networkId, {
    name: `Person of ${name}`,
    email: `p${randomUUID().slice(0, 8)}@example.org`,
    password: 'a long password',
  });
}

/** A site with two screens and a playlist: enough to change something. */
export async function newPlan(actor: Actor): Promise<void> {
  await edit(actor, [
    { kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'Europe/Oslo', tags: ['quay'] } },
    { kind: 'screen', id: 'hall', add: { name: 'Hall', site: 'quay', width: 1920, height: 1080, tags: ['hall'] } },
    { kind: 'screen', id: 'deck', add: { name: 'Deck', site: 'quay', width: 1080, height: 1920, tags: ['deck'] } },
    { kind: 'playlist', id: 'house', add: { name: 'House', items: [] } },
  ]);
}
