import { createHash, type Hash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { config } from '@/config';

/** What is here of files that come in parts: one file each, by the upload's id, as long as what has arrived. */

const folder = () => join(config().dataFolder, 'sending');

export const partPath = (id: string): string => join(folder(), id);

/** Bytes that are here; null where there is no such file. */
export async function partSize(id: string): Promise<number | null> {
  return stat(partPath(id)).then(
    ({ size }) => size,
    (error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return null;
      throw error;
    },
  );
}

export async function makePart(id: string): Promise<void> {
  await mkdir(folder(), { recursive: true });
  await writeFile(partPath(id), '');
}

/** Hashes as far as this process has followed a file from its beginning: what came in one go needs no second reading. */
interface Followed {
  readonly hash: Hash;
  bytes: number;
}

/** Next compiles each route on its own: what must be one in a process hangs here. */
const shared = globalThis as typeof globalThis & { lanternpostParts?: Map<string, Followed> };
const followed = (shared.lanternpostParts ??= new Map<string, Followed>());

/** Writes what comes at place `offset`, in bytes. What has arrived when the stream breaks off stays. Returns the new size. */
export async function writePart(id: string, offset: number, body: Readable): Promise<number> {
  const known = offset === 0 ? { hash: createHash('sha256'), bytes: 0 } : followed.get(id);
  const own = known?.bytes === offset ? known : undefined;
  if (own) followed.set(id, own);
  else followed.delete(id);
  let end = offset;
  let broken: unknown;
  const heard = async function* () {
    try {
      for await (const chunk of body as AsyncIterable<Uint8Array>) {
        end += chunk.byteLength;
        own?.hash.update(chunk);
        if (own) own.bytes = end;
        yield chunk;
      }
    } catch (error) {
      // What has come is written to its end: it is not sent again.
      broken = error;
    }
  };
  await pipeline(heard, createWriteStream(partPath(id), { flags: 'r+', start: offset }));
  if (broken !== undefined) throw broken;
  return end;
}

/** The SHA-256 of a file that is here with all its `bytes`. */
export async function digestOf(id: string, bytes: number): Promise<string> {
  const own = followed.get(id);
  if (own?.bytes === bytes) return own.hash.copy().digest('hex');
  const hash = createHash('sha256');
  await pipeline(createReadStream(partPath(id)), hash);
  return hash.digest('hex');
}

/** Lets go of what is here of a file, or of its hash alone. */
export async function forgetPart(id: string, { onlyHash = false } = {}): Promise<void> {
  followed.delete(id);
  if (!onlyHash) await rm(partPath(id), { force: true });
}
