import { createWriteStream } from 'node:fs';
import { readdir, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { absent, privateFolder, sendingFolder } from './store';

/** What is here of files that come in parts: one file each, by the upload's id, as long as what has arrived. */

export const partPath = (id: string): string => join(sendingFolder(), id);

/** How many bytes have arrived; null if there isn't a file yet. */
export async function partSize(id: string): Promise<number | null> {
  return stat(partPath(id)).then(({ size }) => size, absent(null));
}

export async function makePart(id: string): Promise<void> {
  await privateFolder(sendingFolder());
  await writeFile(partPath(id), '', { mode: 0o600 });
}

/** Writes bytes from place `offset` on. Bytes that arrived before the stream broke off are kept. Returns the new size. */
export async function writePart(id: string, offset: number, body: Readable): Promise<number> {
  let end = offset;
  let broken: unknown;
  const heard = async function* () {
    try {
      for await (const chunk of body as AsyncIterable<Uint8Array>) {
        end += chunk.byteLength;
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

/** Removes what is here of a file. */
export async function forgetPart(id: string): Promise<void> {
  await rm(partPath(id), { force: true });
}

/** The ids of files of which something is here that was not written to since `before`. */
export async function partsBefore(before: Date): Promise<string[]> {
  const found: string[] = [];
  for (const id of await readdir(sendingFolder()).catch(absent<string[]>([]))) {
    const info = await stat(partPath(id)).catch(absent(null));
    if (info && info.mtime < before) found.push(id);
  }
  return found;
}
