import { statfs } from 'node:fs/promises';
import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { config } from '@/config';
import { Refusal } from '@/core/refusal';
import { rows } from '@/database';
import { readInput, type Actor } from '../people';

/** How much a network's library holds, files on their way among it, and may hold. */
export interface Room {
  readonly bytes: number;
  readonly mostBytes: number;
  readonly files: number;
  readonly mostFiles: number;
  /** The largest single file that is taken, in bytes. */
  readonly mostOfFile: number;
  /** What the newest edition's players hold, all together, and what they would without renditions, in bytes; null before the first. */
  readonly onPlayers: { readonly bytes: number; readonly whole: number } | null;
}

export async function libraryRoom(actor: Actor, within?: Transaction): Promise<Room> {
  return { ...(await roomOf(actor, within)), onPlayers: await onPlayers(actor) };
}

async function onPlayers({ networkId }: Actor): Promise<Room['onPlayers']> {
  const [sum] = await rows<{ bytes: string | null; whole: string | null }>(
    `WITH given AS (
       SELECT hash, coalesce(delivered, hash) AS delivered, count(*) AS screens FROM edition_screens
       WHERE edition_id = (SELECT id FROM editions WHERE network_id = $1 AND number IS NOT NULL ORDER BY number DESC LIMIT 1) GROUP BY 1, 2
     ), sizes AS (
       SELECT p.hash, sum(f.bytes) AS bytes FROM program_files p JOIN files f ON f.sha256 = p.sha256
       WHERE p.hash IN (SELECT hash FROM given UNION SELECT delivered FROM given) GROUP BY p.hash
     )
     SELECT sum(d.bytes * screens) AS bytes, sum(w.bytes * screens) AS whole FROM given
     JOIN sizes d ON d.hash = given.delivered JOIN sizes w ON w.hash = given.hash`,
    [networkId],
  );
  return sum?.bytes == null ? null : { bytes: Number(sum.bytes), whole: Number(sum.whole) };
}

async function roomOf({ networkId }: Actor, within?: Transaction): Promise<Omit<Room, 'onPlayers'>> {
  const [found] = await rows<Record<Exclude<keyof Room, 'mostOfFile' | 'onPlayers'>, string>>(
    `WITH held AS (
       SELECT count(*) AS files, coalesce((SELECT sum(bytes) FROM files
         WHERE sha256 IN (SELECT original_sha256 FROM media_files WHERE network_id = $1)), 0) AS bytes
       FROM media_files WHERE network_id = $1
     ), coming AS (
       SELECT count(*) AS files, coalesce(sum(bytes), 0) AS bytes
       FROM uploads WHERE network_id = $1 AND state IN ('sending', 'waiting', 'working')
     )
     SELECT held.bytes + coming.bytes AS bytes, held.files + coming.files AS files,
       n.most_bytes AS "mostBytes", n.most_files AS "mostFiles" FROM networks n, held, coming WHERE n.id = $1`,
    [networkId],
    within,
  );
  return {
    bytes: Number(found?.bytes),
    mostBytes: Number(found?.mostBytes),
    files: Number(found?.files),
    mostFiles: Number(found?.mostFiles),
    mostOfFile: config().uploadLimit,
  };
}

const limitSchema = z.object({
  gigabytes: z.coerce
    .number('Gigabytes are a number.')
    .min(0)
    .max(1e6, 'A library holds at most 1 000 000 GB.')
    .optional(),
  files: z.coerce
    .number('Files are a number.')
    .int()
    .min(0)
    .max(1e9, 'A library holds at most 1 000 000 000 files.')
    .optional(),
});

/** Bounds a network's library, in gigabytes (of 1e9 bytes) and files; what is left out stays. Throws 422. */
export async function limitLibrary(
  { networkId }: Actor,
  input: { readonly gigabytes?: unknown; readonly files?: unknown },
): Promise<void> {
  const { gigabytes, files } = readInput(limitSchema, input);
  await rows(
    'UPDATE networks SET most_bytes = coalesce($2, most_bytes), most_files = coalesce($3, most_files) WHERE id = $1',
    [networkId, gigabytes === undefined ? null : Math.round(gigabytes * 1e9), files ?? null],
  );
}

/** What the rest of the server needs of the disk: its database writes there too. */
const KEPT_FREE = 256 * 2 ** 20;

const size = (bytes: number) =>
  bytes >= 10 ** 9 ? `${(bytes / 10 ** 9).toFixed(1)} GB` : `${Math.floor(bytes / 10 ** 6)} MB`;

/** Throws 413 where a file of `bytes` bytes is too large or the library too full, 507 where the disk is. */
export async function checkRoom(actor: Actor, bytes: number, within?: Transaction): Promise<void> {
  const room = await roomOf(actor, within);
  if (bytes > room.mostOfFile)
    throw new Refusal(
      413,
      `This file is larger than ${Math.floor(room.mostOfFile / 2 ** 20)} MB. Make it smaller, then upload it again.`,
    );
  if (room.files >= room.mostFiles)
    throw new Refusal(413, `The library is full with ${room.mostFiles} files. Delete some, then upload this again.`);
  if (room.bytes + bytes > room.mostBytes)
    throw new Refusal(
      413,
      `The library has room for ${size(room.mostBytes - room.bytes)} more, and this file has ${size(bytes)}. Delete some files, then upload it again.`,
    );
  const { bavail, bsize } = await statfs(config().dataFolder);
  if (bavail * bsize < bytes + KEPT_FREE)
    throw new Refusal(
      507,
      'The server’s disk is nearly full, so this wasn’t saved. Ask the people who run the server to free some space.',
    );
}
