import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { closeBus, closeDatabase, closeQueue, database, migrate, openQueue } from '@/database';
import { closeUploadLocks } from '../library';
import { addPerson, type Actor } from '../people';
import { createNetwork, edit } from '../plan';

/** A database and a data folder of this test file's own, on the server that the test run started. */
export function useDatabase(): void {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const data = mkdtempSync(join(tmpdir(), 'lanternpost-test-'));
  const admin = async (sql: string) => {
    const client = new pg.Client({ connectionString: `${process.env.LANTERNPOST_TEST_SERVER ?? ''}lanternpost` });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  beforeAll(async () => {
    await admin(`CREATE DATABASE ${name}`);
    process.env.DATABASE_URL = `${process.env.LANTERNPOST_TEST_SERVER ?? ''}${name}`;
    process.env.LANTERNPOST_DATA = data;
    await migrate(database());
    await (await openQueue()).stop({ graceful: false, wait: true });
  }, 60_000);
  afterAll(async () => {
    await closeUploadLocks();
    await closeQueue();
    await closeBus();
    await closeDatabase();
    // No WITH (FORCE): it is refused to us while autovacuum is at work there, for which a plain DROP waits.
    await admin(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${name}' AND usename = current_user`,
    );
    await admin(`DROP DATABASE ${name}`);
    rmSync(data, { recursive: true, force: true });
  });
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
