import { Readable } from 'node:stream';
import { LRUCache } from 'lru-cache';
import { rows } from '@/database';
import { logger } from '@/log';
import { absent, hashOf, hashing, openStored, storedPath } from './files';
import { fromTrash } from './trash';

/**
 * Stored files whose bytes are no longer what their name says, or that are gone. They are found when they are sent and by a regular check,
 * named in the interface, and no longer sent. Uploading the same file again repairs them; players keep the copy that they have.
 */

/** A file of this process was found sound so lately that sending it does not check it again. */
const SOUND_FOR_MS = 86_400_000;
const sound = new LRUCache<string, true>({ max: 100_000, ttl: SOUND_FOR_MS });

/** Writes down that a file is damaged or lost, unless a sound copy lies in the trash. Whether it is sound again. */
export async function noteDamaged(sha256: string, now = new Date()): Promise<boolean> {
  sound.delete(sha256);
  if (await fromTrash(sha256)) return true;
  const news = await rows(
    'UPDATE files SET damaged_at = $2 WHERE sha256 = $1 AND damaged_at IS NULL RETURNING sha256',
    [sha256, now],
  );
  if (news.length > 0) logger.error({ sha256 }, 'a stored file is damaged or lost; upload it again to repair it');
  return false;
}

/**
 * Opens a stored file to send it, all of it or the bytes of a range (both ends inclusive). Null where it is lost or known to be damaged. The
 * first time that a process sends a whole file it is checked on the way: a damaged one breaks off before its end.
 */
export async function openToSend(
  { sha256, bytes, damaged = false }: { readonly sha256: string; readonly bytes: number; readonly damaged?: boolean },
  range?: { readonly start: number; readonly end: number },
): Promise<Readable | null> {
  if (damaged) return null;
  let file = await openStored(sha256, bytes);
  if (!file && (await noteDamaged(sha256))) file = await openStored(sha256, bytes);
  if (!file) return null;
  const stream = file.createReadStream(range);
  return range || sound.has(sha256) ? stream : Readable.from(checked(stream, sha256), { objectMode: false });
}

async function* checked(stream: AsyncIterable<Uint8Array>, sha256: string): AsyncGenerator<Uint8Array> {
  const { through, result } = hashing();
  let held: Uint8Array | null = null;
  for await (const chunk of through(stream)) {
    if (held) yield held;
    held = chunk;
  }
  if (result().sha256 !== sha256) {
    await noteDamaged(sha256);
    throw new Error(`The stored file ${sha256} is damaged.`);
  }
  sound.set(sha256, true);
  // The last piece goes out only when the hash is known to be right: no player takes a damaged file for a whole one.
  if (held) yield held;
}

/** What a check of stored files found. */
export interface Checked {
  readonly files: number;
  readonly damaged: readonly string[];
}

/** Of how many files one question to the database is about. */
const AT_ONCE = 200;

/**
 * Reads stored files and compares them with their names, those first that were checked longest ago. Goes on for `forMs` milliseconds, or
 * through all that were not checked since `now`.
 */
export async function checkFiles(now: Date, { forMs = Infinity, tell = (_: number) => {} } = {}): Promise<Checked> {
  const end = Date.now() + forMs;
  const damaged: string[] = [];
  let files = 0;
  for (;;) {
    const next = await rows<{ sha256: string }>(
      `SELECT sha256 FROM files WHERE checked_at IS NULL OR checked_at < $1 ORDER BY checked_at NULLS FIRST LIMIT ${AT_ONCE}`,
      [now],
    );
    for (const { sha256 } of next) {
      if (Date.now() > end) return { files, damaged };
      const good = (await isSound(sha256)) || (await noteDamaged(sha256, now));
      if (!good) damaged.push(sha256);
      await rows(
        'UPDATE files SET checked_at = greatest($2, checked_at), damaged_at = CASE WHEN $3 THEN NULL ELSE damaged_at END WHERE sha256 = $1',
        [sha256, now, good],
      );
      tell(++files);
    }
    if (next.length < AT_ONCE) return { files, damaged };
  }
}

const isSound = async (sha256: string) => (await hashOf(storedPath(sha256)).catch(absent(null)))?.sha256 === sha256;
