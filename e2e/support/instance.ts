import { spawn } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join, resolve } from 'node:path';

const root = resolve(import.meta.dirname, '../..');

/** Starts Lanternpost with fresh sample data on ports of its own, and stops it when the tests are over. */
export default async function startInstance(): Promise<() => Promise<void>> {
  const data = join(root, 'data/e2e');
  for (const folder of ['media', 'incoming', 'fleet']) await rm(join(data, folder), { recursive: true, force: true });
  await mkdir(data, { recursive: true });
  const log = createWriteStream(join(data, 'instance.log'));
  const child = spawn(process.execPath, ['bin/lanternpost.mjs', 'start', '--demo', '--reset'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      DATABASE_URL: '',
      LANTERNPOST_DATA: data,
      PORT: '4370',
      GATEWAY_PORT: '4380',
      LANTERNPOST_DB_PORT: '54630',
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
  process.env.LANTERNPOST_URL = url;
  return async () => {
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGINT');
    await ended;
  };
}
