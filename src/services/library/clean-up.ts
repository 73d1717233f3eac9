import type { Transaction } from 'sequelize';
import { rows, transaction } from '@/database';
import { UNDO_MS } from '../plan';
import { forget, removeStaleIncoming, storedBefore } from './store';

/** How long a file may be without a reference, so that what is just being written is never taken away. */
const GRACE_MS = 10 * 60_000;

/** A file that nothing refers to, and no undo of after `$2` can bring back. */
const UNUSED = `NOT EXISTS (SELECT 1 FROM media_files m WHERE f.sha256 IN (m.asset_sha256, m.thumbnail_sha256, m.original_sha256))
  AND NOT EXISTS (SELECT 1 FROM media_versions v WHERE f.sha256 IN (v.asset_sha256, v.thumbnail_sha256, v.original_sha256))
  AND NOT EXISTS (SELECT 1 FROM part_files p WHERE p.sha256 = f.sha256)
  AND NOT EXISTS (SELECT 1 FROM renditions r WHERE r.sha256 = f.sha256)
  AND NOT EXISTS (SELECT 1 FROM uploads u WHERE u.sha256 = f.sha256 AND u.state IN ('waiting', 'working'))
  AND NOT EXISTS (SELECT 1 FROM changes c WHERE c.columns IS NOT NULL AND c.at > $2
    AND f.sha256 IN (c.before->>'sha256', c.columns->>'originalSha256', c.columns->>'thumbnailSha256'))`;

/** Holds files by their hashes until the transaction ends: who stores one and who removes it take turns. Give several in order. */
export async function holdFiles(hashes: readonly string[], within: Transaction): Promise<void> {
  for (const sha256 of hashes) await rows('SELECT pg_advisory_xact_lock(hashtextextended($1, 7131))', [sha256], within);
}

/** Removes a file and its bytes where nothing refers to it. `before` leaves newer ones alone. Whether it was removed. */
async function removeIfUnused(sha256: string, before: Date, undoFrom: Date): Promise<boolean> {
  return transaction(async (within) => {
    await holdFiles([sha256], within);
    const removed = await rows(
      `DELETE FROM files f WHERE f.sha256 = $1 AND f.created_at < $3 AND ${UNUSED} RETURNING 1 AS gone`,
      [sha256, undoFrom, before],
      within,
    );
    if (removed.length > 0) await forget(sha256);
    return removed.length > 0;
  });
}

/** Removes a file at once where nothing refers to it: one that proved to be of no use. */
export async function removeUnused(sha256: string): Promise<void> {
  const now = Date.now();
  await removeIfUnused(sha256, new Date(now + GRACE_MS), new Date(now - UNDO_MS));
}

/**
 * Removes files that no media, program or upload refers to any more and no undo can bring back, and what broken-off uploads left. `now`
 * decides what is old enough. Returns how many were removed.
 */
export async function cleanUp(now: Date): Promise<{ files: number; incoming: number }> {
  const before = new Date(now.getTime() - GRACE_MS);
  const undoFrom = new Date(before.getTime() - UNDO_MS);
  const unused = await rows<{ sha256: string }>(`SELECT f.sha256 FROM files f WHERE f.created_at < $1 AND ${UNUSED}`, [
    before,
    undoFrom,
  ]);
  let files = 0;
  for (const { sha256 } of unused) if (await removeIfUnused(sha256, before, undoFrom)) files++;
  const known = new Set((await rows<{ sha256: string }>('SELECT sha256 FROM files')).map((file) => file.sha256));
  for (const sha256 of await storedBefore(before))
    if (!known.has(sha256) && (await removeStray(sha256, before))) files++;
  return { files, incoming: await removeStaleIncoming(before) };
}

/** Removes bytes that no row knows, unless they were stored anew since. */
function removeStray(sha256: string, before: Date): Promise<boolean> {
  return transaction(async (within) => {
    await holdFiles([sha256], within);
    const known = await rows('SELECT 1 FROM files WHERE sha256 = $1', [sha256], within);
    if (known.length > 0 || !(await storedBefore(before, sha256)).includes(sha256)) return false;
    await forget(sha256);
    return true;
  });
}
