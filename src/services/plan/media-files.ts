import type { Transaction } from 'sequelize';
import { FORMAT, type Media } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { rows, rowsOfMany } from '@/database';
import type { Actor } from '../people';
import type { Write } from './objects';

/** The files behind a media file: what its document does not carry, and what a document alone never grants. */
export interface MediaFiles {
  readonly originalSha256: string;
  readonly thumbnailSha256: string;
  readonly codec: string | null;
  /** The words that a page bears, in small letters, each behind a line's end; absent where there are none. */
  readonly text?: string | null;
}

interface Row extends MediaFiles {
  readonly slug: string;
  readonly assetSha256: string;
}

const COLUMNS = `original_sha256 AS "originalSha256", asset_sha256 AS "assetSha256", thumbnail_sha256 AS "thumbnailSha256", codec, text`;

/** The files of some media, by their ids. */
export async function filesOfMedia(
  networkId: string,
  ids: readonly string[],
  within: Transaction,
): Promise<Map<string, MediaFiles>> {
  if (ids.length === 0) return new Map();
  const found = await rows<Row>(
    `SELECT o.slug, ${COLUMNS} FROM media_files f JOIN plan_objects o ON o.id = f.media_id
     WHERE f.network_id = $1 AND o.kind = 'media' AND o.slug = ANY($2)`,
    [networkId, ids],
    within,
  );
  return new Map(found.map(({ slug, assetSha256: _, ...files }) => [slug, files]));
}

/** Media whose file is another one than before. */
export const replacedIn = (writes: readonly Write[]) =>
  writes.filter(
    ({ kind, before, after }) =>
      kind === 'media' && before && after && (before as Media).sha256 !== (after as Media).sha256,
  );

/**
 * Puts the files beside media that are new or replaced: those that the library made, else those that the network has (or had, as far as an
 * undo reaches) of the same bytes. A replaced file is kept as a version that people can return to. Throws 422 if a document names bytes that never came
 * into this network's library, without saying whose they are.
 */
export async function attachFiles(
  { networkId, personId }: Pick<Actor, 'networkId' | 'personId'>,
  writes: readonly Write[],
  given: ReadonlyMap<string, MediaFiles>,
  within: Transaction,
): Promise<void> {
  const replaced = new Set(replacedIn(writes));
  const added = writes.flatMap((one) => {
    const { kind, id, before, after } = one;
    const sha256 = kind === 'media' && (!before || replaced.has(one)) ? (after as Media | null)?.sha256 : undefined;
    return sha256 === undefined ? [] : [{ id, sha256 }];
  });
  if (added.length === 0) return;
  const missing = added.filter(({ id }) => !given.has(id)).map(({ sha256 }) => sha256);
  const known = missing.length > 0 ? await knownFiles(networkId, missing, within) : new Map<string, MediaFiles>();
  const files = added.map(({ id, sha256 }) => ({ id, sha256, ...(given.get(id) ?? known.get(sha256)) }));
  const unknown = files.find((one) => one.originalSha256 === undefined);
  if (unknown)
    throw new Refusal(422, 'This file isn’t in your library. Upload it, or leave its SHA-256 out.', [
      { path: '/sha256', message: `The file of “${unknown.id}” isn’t in your library. Upload it.` },
    ]);
  if (replaced.size > 0) await keepVersions(networkId, personId, [...replaced], within);
  await rowsOfMany(
    `INSERT INTO media_files (media_id, network_id, original_sha256, asset_sha256, thumbnail_sha256, codec, text)
     SELECT o.id, $1, f."originalSha256", f.sha256, f."thumbnailSha256", f.codec, f.text
     FROM jsonb_to_recordset($2::jsonb) AS f(id text, sha256 text, "originalSha256" text, "thumbnailSha256" text, codec text, text text)
     JOIN plan_objects o ON o.network_id = $1 AND o.kind = 'media' AND o.slug = f.id
     ON CONFLICT (media_id) DO UPDATE SET (original_sha256, asset_sha256, thumbnail_sha256, codec, text) =
       (EXCLUDED.original_sha256, EXCLUDED.asset_sha256, EXCLUDED.thumbnail_sha256, EXCLUDED.codec, EXCLUDED.text)`,
    [networkId, JSON.stringify(files)],
    files.length,
    within,
  );
  if (replaced.size > 0)
    await rows(
      `DELETE FROM media_versions v USING media_files f
       WHERE v.network_id = $1 AND f.media_id = v.media_id AND f.asset_sha256 = v.asset_sha256`,
      [networkId],
      within,
    );
}

/** What media were before they are replaced, with their files. */
async function keepVersions(
  networkId: string,
  personId: string | null,
  replaced: readonly Write[],
  within: Transaction,
): Promise<void> {
  await rowsOfMany(
    `INSERT INTO media_versions (id, media_id, network_id, original_sha256, asset_sha256, thumbnail_sha256, codec, text, document, format, person_id)
     SELECT gen_random_uuid(), f.media_id, $1, f.original_sha256, f.asset_sha256, f.thumbnail_sha256, f.codec, f.text, r.before, $3, $4
     FROM jsonb_to_recordset($2::jsonb) AS r(id text, before jsonb)
     JOIN plan_objects o ON o.network_id = $1 AND o.kind = 'media' AND o.slug = r.id JOIN media_files f ON f.media_id = o.id
     ON CONFLICT (media_id, asset_sha256) DO UPDATE SET replaced_at = now(), person_id = EXCLUDED.person_id, document = EXCLUDED.document`,
    [networkId, JSON.stringify(replaced.map(({ id, before }) => ({ id, before }))), FORMAT, personId],
    replaced.length,
    within,
  );
}

async function knownFiles(
  networkId: string,
  hashes: readonly string[],
  within: Transaction,
): Promise<Map<string, MediaFiles>> {
  const found = await rows<Omit<Row, 'slug'>>(
    `SELECT ${COLUMNS} FROM media_files WHERE network_id = $1 AND asset_sha256 = ANY($2)
     UNION ALL SELECT c.columns->>'originalSha256', c.before->>'sha256', c.columns->>'thumbnailSha256', c.columns->>'codec', c.columns->>'text' FROM changes c
     WHERE c.network_id = $1 AND c.kind = 'media' AND c.columns IS NOT NULL AND c.before->>'sha256' = ANY($2)
       AND (SELECT count(*) FROM files f WHERE f.sha256 IN (c.before->>'sha256', c.columns->>'originalSha256', c.columns->>'thumbnailSha256'))
         = (SELECT count(DISTINCT h) FROM unnest(ARRAY[c.before->>'sha256', c.columns->>'originalSha256', c.columns->>'thumbnailSha256']) h)`,
    [networkId, hashes],
    within,
  );
  return new Map(found.map(({ assetSha256, ...files }) => [assetSha256, files]));
}
