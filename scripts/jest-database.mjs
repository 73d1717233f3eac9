// Starts the private PostgreSQL server that the service tests share; each test file makes its own database in it.
import { join } from 'node:path';
import { startCluster } from './cluster.mjs';

export default async function start({ rootDir }) {
  const cluster = await startCluster(join(rootDir, 'data/test/postgres'), 54_620, { createdb: true });
  process.env.LANTERNPOST_TEST_SERVER = cluster.urlOf('');
  globalThis.lanternpostCluster = cluster;
}
