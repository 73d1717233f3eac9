import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, type ReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { config } from '@/config';
import { Refusal } from '@/core';

/** The media store: files by the SHA-256 of their bytes, immutable, each once, in the data folder. */

const mediaFolder = () => join(config().dataFolder, 'media');
const incomingFolder = () => join(config().dataFolder, 'incoming');

export function storedPath(sha256: string): string {
  return join(mediaFolder(), sha256.slice(0, 2), sha256);
}

/** A path for a file under way. What is left there by a process that died is removed by `removeStaleIncoming`. */
export async function incomingPath(extension = ''): Promise<string> {
  await mkdir(incomingFolder(), { recursive: true });
  return join(incomingFolder(), randomUUID() + extension);
}

/** Writes a stream to `path`, counting and hashing. Throws 413 past `limit` bytes; the caller removes the path on any error. */
export async function receive(body: Readable, path: string, limit: number): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const counted = async function* (source: AsyncIterable<Uint8Array>) {
    for await (const chunk of source) {
      bytes += chunk.byteLength;
      if (bytes > limit)
        throw new Refusal(
          413,
          `This file is larger than ${Math.floor(limit / 2 ** 20)} MB: make it smaller, then upload it again.`,
        );
      hash.update(chunk);
      yield chunk;
    }
  };
  // Opened first: a stream that is broken off before its file is there would make it afterwards.
  const file = await open(path, 'w');
  await pipeline(body, counted, file.createWriteStream());
  return { sha256: hash.digest('hex'), bytes };
}

/** Moves a complete file into the store under its hash, replacing an equal one. */
export async function keep(path: string, sha256: string): Promise<void> {
  const target = storedPath(sha256);
  await mkdir(dirname(target), { recursive: true });
  const now = new Date();
  await utimes(path, now, now);
  await rename(path, target);
}

/** Hashes a file that stands outside the store, and moves it in. */
export async function adopt(path: string): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) {
    hash.update(chunk);
    bytes += chunk.byteLength;
  }
  const sha256 = hash.digest('hex');
  await keep(path, sha256);
  return { sha256, bytes };
}

/** A stored file's bytes `start` to `end`, both inclusive; all of it without a range. */
export function read(sha256: string, range?: { start: number; end: number }): ReadStream {
  return createReadStream(storedPath(sha256), range);
}

/** Size in bytes, or null where the store has no such file. */
export async function storedBytes(sha256: string): Promise<number | null> {
  return stat(storedPath(sha256)).then(({ size }) => size, absent(null));
}

/** For what is not there; any other fault goes on. */
const absent =
  <T>(none: T) =>
  (error: NodeJS.ErrnoException): T => {
    if (error.code === 'ENOENT') return none;
    throw error;
  };

export async function forget(sha256: string): Promise<void> {
  await rm(storedPath(sha256), { force: true });
}

/** Every stored file not touched since `before`; or the one that is named, if it is one. */
export async function storedBefore(before: Date, only?: string): Promise<string[]> {
  const names = only === undefined ? await storedNames() : [only];
  const found: string[] = [];
  for (const sha256 of names) {
    const info = await stat(storedPath(sha256)).catch(absent(null));
    if (info && info.mtime < before) found.push(sha256);
  }
  return found;
}

async function storedNames(): Promise<string[]> {
  const folders = await readdir(mediaFolder()).catch(absent([]));
  return (await Promise.all(folders.map((folder) => readdir(join(mediaFolder(), folder))))).flat();
}

/** Removes what was being received or made by a process that has died: nothing was written to it since `before`. */
export async function removeStaleIncoming(before: Date): Promise<number> {
  let removed = 0;
  for (const name of await readdir(incomingFolder()).catch(absent([]))) {
    const path = join(incomingFolder(), name);
    const found = await stat(path).catch(absent(null));
    if (!found || found.mtime >= before) continue;
    await rm(path, { force: true });
    removed++;
  }
  return removed;
}
