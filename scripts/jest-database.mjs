// Starts the private PostgreSQL server that the service tests share; each test file gets a database of its own in it, a copy of
// this run's template (src/services/tests/database.ts).
import { join } from 'node:path';
import pg from 'pg';
import { startCluster } from './cluster.mjs';

const TEMPLATE = 'test_template_';

export default async function start({ rootDir }) {
  const cluster = await startCluster(join(rootDir, 'data/test/postgres'), 54_620, { createdb: true });
  process.env.LANTERNPOST_TEST_SERVER = cluster.urlOf('');
  process.env.LANTERNPOST_TEST_TEMPLATE = `${TEMPLATE}${process.pid}`;
  globalThis.lanternpostCluster = cluster;
  await dropTemplates(cluster.url);
}

/** Removes the templates of runs that are over: their migrations may be others. */
async function dropTemplates(url) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query('SELECT datname AS name FROM pg_database WHERE starts_with(datname, $1)', [
    TEMPLATE,
  ]);
  for (const { name } of rows)
    if (!runs(Number.parseInt(name.slice(TEMPLATE.length)))) await client.query(`DROP DATABASE ${name}`);
  await client.end();
}

function runs(pid) {
  try {
    return pid !== process.pid && process.kill(pid, 0);
  } catch {
    return false;
  }
}
