import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { chmod, mkdir, open, readdir, rename, rm, stat, utimes, type FileHandle } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { config } from '@/config';

/** The media store: files named by the SHA-256 of their bytes, each stored once, in the data folder. A stored file never changes. */

export const mediaFolder = () => join(config().dataFolder, 'media');
export const incomingFolder = () => join(config().dataFolder, 'incoming');
export const trashFolder = () => join(config().dataFolder, 'trash');
export const sendingFolder = () => join(config().dataFolder, 'sending');

/** Only the account that runs the server may look into these folders. */
const PRIVATE_FOLDER = 0o700;
const PRIVATE_FILE = 0o600;

/** Makes a folder that only our own account can read. */
export async function privateFolder(path: string): Promise<string> {
  await mkdir(path, { recursive: true, mode: PRIVATE_FOLDER });
  return path;
}

/** Closes folders that an earlier version left readable for every account of this machine. */
export async function closeFolders(): Promise<void> {
  for (const folder of [mediaFolder(), incomingFolder(), trashFolder(), sendingFolder()])
    await chmod(await privateFolder(folder), PRIVATE_FOLDER);
}

export function storedPath(sha256: string): string {
  return join(mediaFolder(), sha256.slice(0, 2), sha256);
}

/** A path for a file that is being made. `removeStaleIncoming` removes what a process that died left there. */
export async function incomingPath(extension = ''): Promise<string> {
  return join(await privateFolder(incomingFolder()), randomUUID() + extension);
}

/** What a file turned out to be: its name in the store, and its size. */
export interface Hashed {
  readonly sha256: string;
  readonly bytes: number;
}

/** Hashes what flows through, and counts it. */
export function hashing(): {
  readonly through: (source: AsyncIterable<Uint8Array>) => AsyncGenerator<Uint8Array>;
  result(): Hashed;
} {
  const hash = createHash('sha256');
  let bytes = 0;
  return {
    async *through(source) {
      for await (const chunk of source) {
        hash.update(chunk);
        bytes += chunk.byteLength;
        yield chunk;
      }
    },
    result: () => ({ sha256: hash.digest('hex'), bytes }),
  };
}

export async function hashOf(path: string): Promise<Hashed> {
  const { through, result } = hashing();
  await pipeline(createReadStream(path), through, async (source) => {
    for await (const _ of source);
  });
  return result();
}

/**
 * Copies a file that others may still write to into a new one that only the caller knows, and hashes the copy as it is written: what the
 * store takes must never change afterwards. The caller moves the copy with `keep`, or removes it.
 */
export async function takeCopy(path: string): Promise<Hashed & { readonly path: string }> {
  const copy = await incomingPath();
  const { through, result } = hashing();
  try {
    await pipeline(createReadStream(path), through, createWriteStream(copy, { mode: PRIVATE_FILE }));
    return { ...result(), path: copy };
  } catch (error) {
    await rm(copy, { force: true });
    throw error;
  }
}

/** Copies a file into the store, if its bytes are what its name says. Whether they were. */
export async function copyIn(path: string, sha256: string): Promise<boolean> {
  const copy = await takeCopy(path).catch(absent(null));
  if (copy?.sha256 === sha256) {
    await keep(copy.path, sha256);
    return true;
  }
  if (copy) await rm(copy.path, { force: true });
  return false;
}

/** Copies a stored file, or one in the trash, to a path outside. Whether there is one whose bytes are what its name says. */
export async function copyOut(sha256: string, to: string): Promise<boolean> {
  for (const from of [storedPath(sha256), join(trashFolder(), sha256)]) {
    const { through, result } = hashing();
    const copied = await pipeline(
      createReadStream(/* turbopackIgnore: true */ from),
      through,
      createWriteStream(to, { mode: PRIVATE_FILE }),
    ).then(() => true, absent(false));
    if (copied && result().sha256 === sha256) return true;
    await rm(to, { force: true });
  }
  return false;
}

/** Moves a file that no other process has open into the store, under its hash. Replaces one that is there, whose bytes may be damaged. */
export async function keep(path: string, sha256: string): Promise<void> {
  const target = storedPath(sha256);
  await privateFolder(dirname(target));
  const now = new Date();
  await utimes(path, now, now);
  await chmod(path, PRIVATE_FILE);
  const file = await open(path, 'r+');
  await file.datasync();
  await file.close();
  await rename(path, target);
}

/** Hashes a file outside the store that no other process has open, and moves it in. */
export async function adopt(path: string): Promise<Hashed> {
  const hashed = await hashOf(path);
  await keep(path, hashed.sha256);
  return hashed;
}

/** For what is not there; any other fault goes on. */
export const absent =
  <T>(none: T) =>
  (error: NodeJS.ErrnoException): T => {
    if (error.code === 'ENOENT') return none;
    throw error;
  };

/**
 * Opens a stored file, so that a lost or shortened one is noticed before anything is answered: null where it is not there with all its
 * `bytes`. The caller reads from it, or closes it.
 */
export async function openStored(sha256: string, bytes: number): Promise<FileHandle | null> {
  const file = await open(storedPath(sha256)).catch(absent(null));
  if (!file) return null;
  if ((await file.stat()).size === bytes) return file;
  await file.close();
  return null;
}

/** Size in bytes, or null where the store has no such file. */
export async function storedBytes(sha256: string): Promise<number | null> {
  return stat(storedPath(sha256)).then(({ size }) => size, absent(null));
}

/** Whether a name is one of a folder of the store, or of a file in it. */
const isFolderName = (name: string) => /^[0-9a-f]{2}$/.test(name);
export const isHash = (name: string) => /^[0-9a-f]{64}$/.test(name);

/** The hashes of all stored files, folder by folder. */
export async function* storedNames(): AsyncGenerator<readonly string[]> {
  for (const folder of (await readdir(mediaFolder()).catch(absent<string[]>([]))).filter(isFolderName).sort())
    yield (await readdir(join(mediaFolder(), folder)).catch(absent<string[]>([]))).filter(isHash);
}

/** When a file, or a folder or what is in it, was written to last; null where it is gone. */
async function lastWritten(path: string): Promise<Date | null> {
  const found = await stat(path).catch(absent(null));
  if (!found?.isDirectory()) return found?.mtime ?? null;
  // While a long video is written, its folder itself does not change.
  let last = found.mtime;
  for (const name of await readdir(path).catch(absent<string[]>([]))) {
    const inside = await stat(join(path, name)).catch(absent(null));
    if (inside && inside.mtime > last) last = inside.mtime;
  }
  return last;
}

/** Removes what was being received or made by a process that has died: nothing was written to it since `before`. */
export async function removeStaleIncoming(before: Date): Promise<number> {
  let removed = 0;
  for (const name of await readdir(incomingFolder()).catch(absent<string[]>([]))) {
    const path = join(incomingFolder(), name);
    const last = await lastWritten(path);
    if (!last || last >= before) continue;
    await rm(path, { force: true, recursive: true });
    removed++;
  }
  return removed;
}
