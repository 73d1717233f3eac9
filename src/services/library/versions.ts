import type { Transaction } from 'sequelize';
import { currentDocument, type Media } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { rows, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { editWithin, inTurn, takeTurn, type Edit, type EditResult, type MediaFiles } from '../plan';
import { mediaRow } from './rows';

/** Files that took another's place, and those that they replaced: kept as long as the network keeps editions. */

/** What a media file was before it was replaced. */
export interface Version {
  readonly id: string;
  /** As it was. */
  readonly file: Media;
  readonly replacedAt: string;
  /** Who replaced it; null if that person is no longer known. */
  readonly by: string | null;
}

/** What a media file was before, the newest first. Throws 404 for a file that the actor's network does not have. */
export async function versionsOf(actor: Actor, id: string): Promise<Version[]> {
  const row = await mediaRow(actor, id);
  const found = await rows<{ id: string; document: object; format: number; at: Date; by: string | null }>(
    `SELECT v.id, v.document, v.format, v.replaced_at AS at, p.name AS by FROM media_versions v LEFT JOIN people p ON p.id = v.person_id
     WHERE v.media_id = $1 ORDER BY v.replaced_at DESC, v.id`,
    [row],
  );
  return found.map((one) => ({
    ...{ id: one.id, replacedAt: one.at.toISOString(), by: one.by },
    file: currentDocument('media', one.document, one.format) as Media,
  }));
}

/** Makes an earlier version of a file the one that shows again; what it is now is kept as one. Throws 404 for none, 422 where it can't be. */
export async function bringBack(actor: Actor, id: string, version: string): Promise<EditResult> {
  demand(actor, 'library');
  return inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const row = await mediaRow(actor, id, within);
    const [found] = await rows<MediaFiles & { document: object; format: number }>(
      `SELECT original_sha256 AS "originalSha256", thumbnail_sha256 AS "thumbnailSha256", codec, text, document, format
       FROM media_versions WHERE media_id = $1 AND id = $2`,
      [row, version],
      within,
    );
    if (!found) throw notFound('earlier version');
    const { document, format, ...files } = found;
    const earlier = currentDocument('media', document, format) as Media;
    return editWithin(actor, [await replacing(row, earlier, files, within)], within, { id: uuidv7() });
  });
}

/** The files of earlier versions of media, by the media's ids: of those that the network still keeps. */
export async function filesOfVersions(
  networkId: string,
  wanted: readonly { readonly id: string; readonly sha256: string }[],
  within: Transaction,
): Promise<Map<string, MediaFiles>> {
  if (wanted.length === 0) return new Map();
  const found = await rows<MediaFiles & { slug: string }>(
    `SELECT o.slug, v.original_sha256 AS "originalSha256", v.thumbnail_sha256 AS "thumbnailSha256", v.codec, v.text
     FROM media_versions v JOIN plan_objects o ON o.id = v.media_id
     JOIN jsonb_to_recordset($2::jsonb) AS w(id text, sha256 text) ON w.id = o.slug AND w.sha256 = v.asset_sha256
     WHERE v.network_id = $1`,
    [networkId, JSON.stringify(wanted)],
    within,
  );
  return new Map(found.map(({ slug, ...files }) => [slug, files]));
}

/** What is measured of a file. */
const MEASURED = ['kind', 'audio', 'width', 'height', 'bytes', 'durationMs', 'sha256', 'type', 'codec'] as const;

/** The edit that gives a media file another file. Throws 422 if a sound would replace a picture, or the other way round. */
export async function replacing(
  row: string,
  measures: Pick<Media, 'kind'> & Partial<Media>,
  files: MediaFiles,
  within: Transaction,
): Promise<Edit> {
  const [found] = await rows<{ slug: string; document: object; format: number }>(
    'SELECT slug, document, format FROM plan_objects WHERE id = $1',
    [row],
    within,
  );
  if (!found) throw notFound('media file');
  const now = currentDocument('media', found.document, found.format) as Media;
  if ((now.kind === 'sound') !== (measures.kind === 'sound'))
    throw new Refusal(
      422,
      now.kind === 'sound'
        ? `“${now.name}” is a sound, and this isn’t, so it can’t replace it. Upload it as a new file.`
        : `This is a sound, and “${now.name}” isn’t, so it can’t replace it. Upload it as a new file.`,
    );
  // A duration that a person chose for a picture stays. A video's is measured.
  const stays = now.kind === 'image' && measures.kind === 'image';
  const set = Object.fromEntries(
    MEASURED.filter((field) => !(field === 'durationMs' && stays)).map((field) => [field, measures[field] ?? null]),
  );
  return { kind: 'media', id: found.slug, set, files };
}

/** Lets go, as of `now`, of earlier versions that their networks keep no longer. Returns how many. */
export async function clearVersions(now: Date): Promise<number> {
  const gone = await rows(
    `DELETE FROM media_versions v USING networks n
     WHERE n.id = v.network_id AND v.replaced_at < $1::timestamptz - n.kept_days * interval '1 day' RETURNING v.id`,
    [now],
  );
  return gone.length;
}
