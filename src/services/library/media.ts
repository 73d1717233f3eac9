import { rows, transaction } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core';
import type { StoredFile } from '@/protocol/file-response';
import type { Actor } from '../people';
import { UNDO_MS } from '../plan';
import { forget, removeStaleIncoming, storedBefore } from './store';

/** What the plan file does not say of a media file. */
export interface MediaExtras {
  readonly id: string;
  readonly codec: string | null;
}

/** Throws 404 for a media file that the actor's network does not have. */
export async function mediaExtras({ networkId }: Actor, id: string): Promise<MediaExtras> {
  const [found] = await rows<MediaExtras>(
    `SELECT o.slug AS id, f.codec FROM plan_objects o LEFT JOIN media_files f ON f.media_id = o.id
     WHERE o.network_id = $1 AND o.kind = 'media' AND o.slug = $2`,
    [networkId, id],
  );
  if (!found) throw notFound('media file');
  return found;
}

const checkHash = (sha256: string) => {
  if (!/^[0-9a-f]{64}$/.test(sha256)) throw new Refusal(400, 'A file is named by its SHA-256: 64 digits 0-9 and a-f.');
};

/** Type and size of a file that the actor's network has in its library. Throws 404 for any other. */
export async function libraryFile({ networkId }: Actor, sha256: string): Promise<StoredFile> {
  checkHash(sha256);
  return found(
    `SELECT f.sha256, f.type, f.bytes FROM files f WHERE f.sha256 = $1 AND EXISTS (
       SELECT 1 FROM media_files m WHERE m.network_id = $2 AND f.sha256 IN (m.asset_sha256, m.thumbnail_sha256, m.original_sha256))`,
    [sha256, networkId],
  );
}

/** The small picture of the media file whose bytes are named. Throws 404 where the actor's network has none. */
export async function thumbnailOf({ networkId }: Actor, sha256: string): Promise<StoredFile> {
  checkHash(sha256);
  return found(
    `SELECT f.sha256, f.type, f.bytes FROM media_files m JOIN files f ON f.sha256 = m.thumbnail_sha256
     WHERE m.network_id = $2 AND m.asset_sha256 = $1 LIMIT 1`,
    [sha256, networkId],
  );
}

async function found(sql: string, bind: unknown[]): Promise<StoredFile> {
  const [file] = await rows<{ sha256: string; type: string; bytes: string }>(sql, bind);
  if (!file) throw notFound('file');
  return { ...file, bytes: Number(file.bytes) };
}

/** How long a file may be without a reference, so that what is just being written is never taken away. */
const GRACE_MS = 10 * 60_000;

/**
 * Removes files that no media, program or upload refers to any more and no undo can bring back, and what broken-off uploads left. `now` decides what
 * is old enough. Returns how many were removed.
 */
export async function cleanUp(now: Date): Promise<{ files: number; incoming: number }> {
  const before = new Date(now.getTime() - GRACE_MS);
  const removed = await transaction((within) =>
    rows<{ sha256: string }>(
      `DELETE FROM files f WHERE f.created_at < $1
         AND NOT EXISTS (SELECT 1 FROM media_files m WHERE f.sha256 IN (m.asset_sha256, m.thumbnail_sha256, m.original_sha256))
         AND NOT EXISTS (SELECT 1 FROM program_files p WHERE p.sha256 = f.sha256)
         AND NOT EXISTS (SELECT 1 FROM uploads u WHERE u.sha256 = f.sha256 AND u.state IN ('waiting', 'working'))
         AND NOT EXISTS (SELECT 1 FROM changes c WHERE c.columns IS NOT NULL AND c.at > $2
           AND f.sha256 IN (c.before->>'sha256', c.columns->>'originalSha256', c.columns->>'thumbnailSha256'))
       RETURNING f.sha256`,
      [before, new Date(before.getTime() - UNDO_MS)],
      within,
    ),
  );
  const stored = await storedBefore(before);
  const known = new Set((await rows<{ sha256: string }>('SELECT sha256 FROM files')).map((file) => file.sha256));
  const stray = stored.filter((sha256) => !known.has(sha256));
  for (const { sha256 } of removed) await forget(sha256);
  for (const sha256 of stray) await forget(sha256);
  return {
    files: new Set([...removed.map((file) => file.sha256), ...stray]).size,
    incoming: await removeStaleIncoming(before),
  };
}
