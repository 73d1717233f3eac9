import { rows } from '@/database';
import { notFound } from '../errors';
import { currentDocument, type Media } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import type { StoredFile } from '@/protocol/file-response';
import type { Actor } from '../people';
import { versionsOf, type Version } from './versions';

/** What the plan file does not say of a media file. */
export interface MediaExtras {
  readonly id: string;
  /** What it says. */
  readonly file: Media;
  readonly codec: string | null;
  /** Bytes of the file as it came. */
  readonly originalBytes: number | null;
  /** What was made of it for screens, the largest first. */
  readonly renditions: readonly MadeFor[];
  /** What it was before it was replaced, the newest first. */
  readonly versions: readonly Version[];
}

/** What was made, or is being made, of a file for screens of a size. */
export interface MadeFor {
  readonly width: number;
  readonly height: number;
  /** Null while it is not made. */
  readonly bytes: number | null;
  readonly error: string | null;
}

/** Throws 404 for a media file that the actor's network does not have. */
export async function mediaExtras(actor: Actor, id: string): Promise<MediaExtras> {
  const [found] = await rows<{
    codec: string | null;
    asset: string | null;
    bytes: string | null;
    document: object;
    format: number;
  }>(
    `SELECT o.document, o.format, m.codec, m.asset_sha256 AS asset, f.bytes FROM plan_objects o LEFT JOIN media_files m ON m.media_id = o.id
     LEFT JOIN files f ON f.sha256 = m.original_sha256 WHERE o.network_id = $1 AND o.kind = 'media' AND o.slug = $2`,
    [actor.networkId, id],
  );
  if (!found) throw notFound('media file');
  const made = await rows<{ width: number; height: number; bytes: string | null; error: string | null }>(
    `SELECT r.width, r.height, f.bytes, r.error FROM renditions r LEFT JOIN files f ON f.sha256 = r.sha256
     WHERE r.asset_sha256 = $1 ORDER BY r.width * r.height DESC`,
    [found.asset],
  );
  const bytes = (text: string | null) => (text === null ? null : Number(text));
  return {
    ...{ id, codec: found.codec, originalBytes: bytes(found.bytes) },
    file: currentDocument('media', found.document, found.format) as Media,
    renditions: made.map((one) => ({ ...one, bytes: bytes(one.bytes) })),
    versions: await versionsOf(actor, id),
  };
}

const checkHash = (sha256: string) => {
  if (!/^[0-9a-f]{64}$/.test(sha256)) throw new Refusal(400, 'A file is named by its SHA-256: 64 digits 0-9 and a-f.');
};

/** What media consist of, and what they consisted of before they were replaced. */
const FILES_OF_MEDIA = ['media_files', 'media_versions']
  .map((table) => `SELECT network_id, original_sha256, asset_sha256, thumbnail_sha256 FROM ${table}`)
  .join(' UNION ALL ');

/** Type and size of a file that the actor's network has in its library. Throws 404 for any other. */
export async function libraryFile({ networkId }: Actor, sha256: string): Promise<StoredFile> {
  checkHash(sha256);
  return found(
    `SELECT f.sha256, f.type, f.bytes, f.damaged_at IS NOT NULL AS damaged FROM files f WHERE f.sha256 = $1 AND EXISTS (
       SELECT 1 FROM (${FILES_OF_MEDIA}) m WHERE m.network_id = $2 AND f.sha256 IN (m.asset_sha256, m.thumbnail_sha256, m.original_sha256))`,
    [sha256, networkId],
  );
}

/** The small picture of the media file whose bytes are named. Throws 404 where the actor's network has none. */
export async function thumbnailOf({ networkId }: Pick<Actor, 'networkId'>, sha256: string): Promise<StoredFile> {
  checkHash(sha256);
  return found(
    `SELECT f.sha256, f.type, f.bytes, f.damaged_at IS NOT NULL AS damaged FROM (${FILES_OF_MEDIA}) m JOIN files f ON f.sha256 = m.thumbnail_sha256
     WHERE m.network_id = $2 AND m.asset_sha256 = $1 LIMIT 1`,
    [sha256, networkId],
  );
}

async function found(sql: string, bind: unknown[]): Promise<StoredFile> {
  const [file] = await rows<{ sha256: string; type: string; bytes: string; damaged: boolean }>(sql, bind);
  if (!file) throw notFound('file');
  return { ...file, bytes: Number(file.bytes) };
}
