import { rmSync } from 'node:fs';
import { connect, createServer, type Server } from 'node:net';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { createHash } from 'node:crypto';

/** Paths of sockets are short: this is what Linux takes, with its end. */
const LONGEST_PATH = 107;

/**
 * Holds a data folder for this process, until it ends, however it does. Throws where another process holds it: two that write the
 * same files and look after the same database would be in each other's way.
 */
export async function holdFolder(folder: string): Promise<Server> {
  const inside = join(folder, 'running.sock');
  const path =
    inside.length <= LONGEST_PATH
      ? inside
      : join(tmpdir(), `lanternpost-${createHash('sha256').update(folder).digest('hex').slice(0, 16)}.sock`);
  const held = await listen(path);
  if (held) return held;
  if (await answers(path))
    throw new Error(
      `Lanternpost is already running on ${folder}. Stop it first, or name another folder in LANTERNPOST_DATA.`,
    );
  // One that was killed left its socket behind.
  rmSync(path, { force: true });
  const again = await listen(path);
  if (!again) throw new Error(`Lanternpost was started on ${folder} twice at once: this one ends.`);
  return again;
}

const listen = (path: string) =>
  new Promise<Server | null>((done, failed) => {
    const server = createServer((socket) => socket.end());
    server.once('error', (error: NodeJS.ErrnoException) => (error.code === 'EADDRINUSE' ? done(null) : failed(error)));
    server.listen(path, () => done(server.unref()));
  });

const answers = (path: string) =>
  new Promise<boolean>((done) => {
    const socket = connect(path, () => {
      socket.end();
      done(true);
    });
    socket.once('error', () => done(false));
  });
