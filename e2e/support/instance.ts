import { spawn } from 'node:child_process';
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import pg from 'pg';
import { runningCluster } from '../../scripts/cluster.mjs';

const root = resolve(import.meta.dirname, '../..');

/** The first of the ports that are used; another checkout on this machine takes others. */
export const FIRST_PORT = Number(process.env.LANTERNPOST_E2E_PORT ?? 4380);

/** The sample network as it was made, at rest: every spec gets a copy. */
export const INSTANCE_TEMPLATE = 'e2e-template';

/** Where an instance keeps its data. */
export const dataFolder = (name: string) => join(root, 'data', name);

export interface Instance {
  readonly url: string;
  readonly pid: number;
  readonly data: string;
  stop(): Promise<void>;
}

/** Starts Lanternpost in a data folder and on ports of its own, with the sample network or none; `fresh` removes what was there. */
export async function startLanternpost(
  name: string,
  firstPort: number,
  demo: boolean,
  fresh = true,
): Promise<Instance> {
  const data = dataFolder(name);
  if (fresh) await removeData(data);
  await mkdir(data, { recursive: true });
  const log = createWriteStream(join(data, 'instance.log'));
  const child = spawn(process.execPath, ['bin/lanternpost.mjs', 'start', ...(demo ? ['--demo'] : [])], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: '',
      LANTERNPOST_DATA: data,
      PORT: String(firstPort),
      GATEWAY_PORT: String(firstPort + 1),
      LANTERNPOST_DB_PORT: String(firstPort + 2),
    },
  });
  child.stderr.pipe(log);
  const url = await new Promise<string>((lit, failed) => {
    child.once('exit', (code) =>
      failed(new Error(`Lanternpost did not start (${code}): see ${join(data, 'instance.log')}`)),
    );
    child.stdout.on('data', (chunk: Buffer) => {
      log.write(chunk);
      const found = /is lit: (\S+)/.exec(chunk.toString());
      if (found?.[1]) lit(found[1]);
    });
  });
  const stop = async () => {
    if (child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGINT');
    await ended;
  };
  return { url, pid: child.pid ?? 0, data, stop };
}

/** Removes a data folder; a database server that a broken-off run left running in it is stopped first. */
export async function removeData(data: string): Promise<void> {
  const pid = await readFile(join(data, 'postgres/postmaster.pid'), 'utf8').then(
    (text) => Number(text.split('\n')[0]),
    () => 0,
  );
  if (pid > 0) {
    try {
      process.kill(pid, 'SIGQUIT');
      for (;;) {
        process.kill(pid, 0);
        await new Promise((done) => setTimeout(done, 50));
      }
    } catch {
      // It has ended.
    }
  }
  await rm(data, { recursive: true, force: true });
}

/** Makes the sample network once, and leaves it at rest. `scripts/test-again.mjs` keeps it for the next run. */
export default async function makeTemplate(): Promise<void> {
  if (process.env.LANTERNPOST_KEEP_TEMPLATE && existsSync(dataFolder(INSTANCE_TEMPLATE))) return;
  const { stop, data } = await startLanternpost(INSTANCE_TEMPLATE, FIRST_PORT - 10, true);
  await restOfWorker(data);
  await stop();
}

/** Until the worker has made what the sample network's screens need: otherwise each copy would make it again. */
async function restOfWorker(data: string): Promise<void> {
  const client = new pg.Client({ connectionString: runningCluster(join(data, 'postgres')) });
  await client.connect();
  for (let open = 1; open > 0;) {
    const { rows } = await client.query<{ open: number }>(
      `SELECT count(*)::int AS open FROM pgboss.job WHERE state IN ('created', 'retry', 'active')
       AND name IN ('fit-picture', 'fit-film', 'deliver')`,
    );
    open = rows[0]?.open ?? 0;
    await new Promise((later) => setTimeout(later, 200));
  }
  await client.end();
}
