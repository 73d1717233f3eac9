import type { Transaction } from 'sequelize';
import { notFound } from '../errors';
import type { Actor } from '../people';
import { rows, type UploadProgress, type UploadRow } from '@/database';
import { storedBytes } from './store';

/** A file on its way into the library, as the person who sent it sees it. */
export type Upload = UploadProgress;

export const uploadOf = ({ id, name, state, progress, error }: UploadRow): Upload => ({
  ...{ id, name, progress, error: error ?? null },
  state: state === 'sending' ? 'waiting' : state,
});

/** Writes down a file that was just put into the store, and so is sound. */
export async function recordFile(
  file: { readonly sha256: string; readonly bytes: number; readonly type: string },
  within: Transaction,
): Promise<void> {
  await rows(
    `INSERT INTO files (sha256, bytes, type, checked_at) VALUES ($1, $2, $3, now())
     ON CONFLICT (sha256) DO UPDATE SET created_at = now(), checked_at = now(), damaged_at = NULL`,
    [file.sha256, file.bytes, file.type],
    within,
  );
}

/** The row of a media file. Throws 404 for none. */
export async function mediaRow({ networkId }: Actor, id: string, within?: Transaction): Promise<string> {
  const [found] = await rows<{ id: string }>(
    "SELECT id FROM plan_objects WHERE network_id = $1 AND kind = 'media' AND slug = $2",
    [networkId, id],
    within,
  );
  if (!found) throw notFound('media file');
  return found.id;
}

/** The media file that the network has of the same bytes; null for none. */
export async function knownMedia(networkId: string, original: string, within?: Transaction) {
  const [found] = await rows<{ id: string; slug: string; name: string }>(
    `SELECT o.id, o.slug, o.name FROM media_files f JOIN plan_objects o ON o.id = f.media_id
     WHERE f.network_id = $1 AND f.original_sha256 = $2 ORDER BY o.id LIMIT 1`,
    [networkId, original],
    within,
  );
  return found ?? null;
}

/** Whether the store has all files of a media file, undamaged, by the media file's row. */
export async function isSoundMedia(row: string, within: Transaction): Promise<boolean> {
  const found = await rows<{ sha256: string; bytes: string; damaged: boolean }>(
    `SELECT f.sha256, f.bytes, f.damaged_at IS NOT NULL AS damaged FROM media_files m
     JOIN files f ON f.sha256 IN (m.original_sha256, m.asset_sha256, m.thumbnail_sha256) WHERE m.media_id = $1`,
    [row],
    within,
  );
  for (const { sha256, bytes, damaged } of found)
    if (damaged || (await storedBytes(sha256)) !== Number(bytes)) return false;
  return true;
}
