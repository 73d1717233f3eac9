import { readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import { absent, hashOf, isHash, keep, privateFolder, storedPath, trashFolder } from './files';

/** Removed files wait here before they are gone for good, so that a mistake of ours, or of whoever runs the server, can be taken back. */

export const TRASH_DAYS = 14;
const TRASH_MS = TRASH_DAYS * 86_400_000;

const trashPath = (sha256: string) => join(trashFolder(), sha256);

/** Takes a file out of the store. Nothing happens where it is not there. */
export async function toTrash(sha256: string, now = new Date()): Promise<void> {
  await privateFolder(trashFolder());
  // From now on its days in the trash are counted.
  await utimes(storedPath(sha256), now, now).catch(absent(undefined));
  await rename(storedPath(sha256), trashPath(sha256)).catch(absent(undefined));
}

/** Puts a file back into the store, if the trash has it and its bytes are sound. Whether it did. */
export async function fromTrash(sha256: string): Promise<boolean> {
  const found = await hashOf(trashPath(sha256)).catch(absent(null));
  if (found?.sha256 !== sha256) return false;
  await keep(trashPath(sha256), sha256);
  return true;
}

/** Removes for good what has been in the trash for `TRASH_DAYS` days. Returns how many files. */
export async function emptyTrash(now: Date): Promise<number> {
  let removed = 0;
  for (const name of (await readdir(trashFolder()).catch(absent<string[]>([]))).filter(isHash)) {
    const info = await stat(trashPath(name)).catch(absent(null));
    if (!info || now.getTime() - info.mtimeMs < TRASH_MS) continue;
    await rm(trashPath(name), { force: true });
    removed++;
  }
  return removed;
}
