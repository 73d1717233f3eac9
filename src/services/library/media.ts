import { rows, transaction } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core';
import type { Actor } from '../people';
import { UNDO_MS } from '../plan';
import { forget, removeStaleIncoming, storedBefore } from './store';

/** What the plan file does not say of a media file. */
export interface MediaExtras {
  readonly id: string;
  readonly thumbnail: string | null;
  readonly codec: string | null;
}

export async function mediaExtras(actor: Actor): Promise<MediaExtras[]> {
  return rows<MediaExtras>(`SELECT o.slug AS id, f.thumbnail_sha256 AS thumbnail, f.codec FROM plan_objects o LEFT JOIN media_files f ON f.media_id = o.id
     WHERE o.network_id = $1 AND o.kind = 'media'`, [
    actor.networkId,
  ]);
}

/** Type and size of a file that the actor's network has in its library. Throws 404 for any other. */
export async function libraryFile(actor: Actor, sha256: string): Promise<{ type: string; bytes: number }> {
  if (!/^[0-9a-f]{64}$/.test(sha256))
    throw new Refusal(400, 'A file is named by its SHA-256: 64 digits 0-9 and a-f.');
  const [file] = await rows<{ type: string; bytes: string }>(
    `SELECT f.type, f.bytes FROM files f WHERE f.sha256 = $1 AND EXISTS (
       SELECT 1 FROM media_files m WHERE m.network_id = $2 AND f.sha256 IN (m.asset_sha256, m.thumbnail_sha256, m.original_sha256))`,
    [sha256, actor.networkId],
  );
  if (!file) throw notFound('file');
  return { type: file.type, bytes: Number(file.bytes) };
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
