import { rm } from 'node:fs/promises';
import type { Transaction } from 'sequelize';
import type { Asset, ShownAsset } from '@/core/edition';
import { enqueue, enqueueAll, rows, transaction } from '@/database';
import { holdFiles } from './store';
import { makeSmallerFilm } from './inspect';
import { kindOfFile } from './kinds';
import { recordFile } from './rows';
import { sizeFor, sizesFor, type Size } from './sizes';
import { adopt, incomingPath, storedBytes, storedPath } from './store';
import { draw } from './studio';

/** Renditions: what players get of a file, made for the sizes of a network's screens. */

/** What a rendition is made of. */
export type Source = Pick<ShownAsset, 'kind' | 'sha256' | 'width' | 'height'>;

/** The sizes of a network's screens, each once. */
export async function screenSizes(networkId: string, within?: Transaction): Promise<Size[]> {
  return rows<Size>(
    `SELECT DISTINCT (document->>'width')::int AS width, (document->>'height')::int AS height
     FROM plan_objects WHERE network_id = $1 AND kind = 'screen'`,
    [networkId],
    within,
  );
}

/**
 * Asks for what is missing of files on screens of these sizes; the worker makes it. `ahead` are those that are on air, which go first. What
 * failed is not asked for again.
 */
export async function wantRenditions(
  sources: readonly Source[],
  screens: readonly Size[],
  within: Transaction,
  { ahead = false } = {},
): Promise<void> {
  const wanted = sources.flatMap((source) => sizesFor(source, screens).map((size) => ({ source, ...size })));
  if (wanted.length === 0) return;
  const made = await rows<{ asset: string; width: number; height: number }>(
    `INSERT INTO renditions (asset_sha256, width, height)
     SELECT DISTINCT asset, width, height FROM jsonb_to_recordset($1::jsonb) AS w(asset text, width int, height int)
     ON CONFLICT DO NOTHING RETURNING asset_sha256 AS asset, width, height`,
    [JSON.stringify(wanted.map(({ source, width, height }) => ({ asset: source.sha256, width, height })))],
    within,
  );
  const kinds = new Map(sources.map((source) => [source.sha256, source.kind]));
  const jobs = made.map(
    (data) => ({ name: kinds.get(data.asset) === 'video' ? 'fit-film' : 'fit-picture', data }) as const,
  );
  await enqueueAll(jobs, within, ahead ? AHEAD : 0);
}

/** Before pictures that are in no program yet. */
const AHEAD = 10;

export interface FitJob {
  readonly asset: string;
  readonly width: number;
  readonly height: number;
}

/** Makes a rendition. Safe to run again after a crash at any point. If the media file is gone by then, nothing happens. */
export async function makeRendition({ asset, width, height }: FitJob): Promise<void> {
  const known = await rows(
    'SELECT 1 FROM renditions WHERE asset_sha256 = $1 AND width = $2 AND height = $3 AND sha256 IS NULL AND error IS NULL',
    [asset, width, height],
  );
  if (known.length === 0 || (await storedBytes(asset)) === null) return;
  const source = storedPath(asset);
  const target = await incomingPath();
  try {
    if ((await kindOfFile(source)).nature === 'film') await makeSmallerFilm(source, { width, height }, target);
    else await draw('scaled', source, target, width, height);
    const { type } = await kindOfFile(target);
    const { sha256, bytes } = await adopt(target);
    await transaction(async (within) => {
      await holdFiles([sha256], within);
      if ((await storedBytes(sha256)) === null) throw new Error(`The file ${sha256} is gone: it is made again.`);
      await recordFile({ sha256, bytes, type }, within);
      await rows(
        'UPDATE renditions SET sha256 = $4 WHERE asset_sha256 = $1 AND width = $2 AND height = $3',
        [asset, width, height, sha256],
        within,
      );
      for (const networkId of await onAirIn(asset, within)) await enqueue('deliver', { network: networkId }, within);
    });
  } finally {
    await rm(target, { force: true });
  }
}

/** Ends a rendition that can't be made: players get the file itself. */
export async function failRendition({ asset, width, height }: FitJob): Promise<void> {
  await rows(
    `UPDATE renditions SET error = 'It could not be made.' WHERE asset_sha256 = $1 AND width = $2 AND height = $3 AND sha256 IS NULL`,
    [asset, width, height],
  );
}

/** The networks whose newest edition, or one that is planned, shows a file. */
async function onAirIn(asset: string, within: Transaction): Promise<string[]> {
  const found = await rows<{ id: string }>(
    `SELECT DISTINCT e.network_id AS id FROM program_files p JOIN edition_screens s ON s.hash = p.hash
     JOIN editions e ON e.id = s.edition_id
     WHERE p.sha256 = $1 AND (e.number IS NULL OR e.number = (SELECT max(number) FROM editions n WHERE n.network_id = e.network_id))`,
    [asset],
    within,
  );
  return found.map(({ id }) => id);
}

/** What there is of some files, by the file's hash: renditions that are made, and their bytes. */
export async function renditionsOf(
  assets: readonly string[],
  within?: Transaction,
): Promise<ReadonlyMap<string, readonly Rendition[]>> {
  const found = await rows<Rendition & { asset: string; bytes: string }>(
    `SELECT r.asset_sha256 AS asset, r.width, r.height, r.sha256, f.bytes, f.type FROM renditions r
     JOIN files f ON f.sha256 = r.sha256 WHERE r.asset_sha256 = ANY($1) ORDER BY r.width, r.height`,
    [assets],
    within,
  );
  const by = new Map<string, Rendition[]>();
  for (const { asset, bytes, ...one } of found)
    by.set(asset, [...(by.get(asset) ?? []), { ...one, bytes: Number(bytes) }]);
  return by;
}

export interface Rendition extends Size {
  readonly sha256: string;
  readonly bytes: number;
  readonly type: string;
}

/**
 * What a screen gets of a file: the rendition of its size; while that is missing, the smallest that is larger; else the file itself. Never
 * one that has more bytes than the file. Sounds are as they are.
 */
export function fitted(asset: Asset, screen: Size, known: readonly Rendition[]): Asset {
  if (asset.kind === 'sound') return asset;
  const wanted = sizeFor(asset, screen);
  if (!wanted) return asset;
  const [best] = known
    .filter(({ width, height, bytes }) => width >= wanted.width && height >= wanted.height && bytes < asset.bytes)
    .sort((a, b) => a.width * a.height - b.width * b.height);
  return best ? { ...asset, ...best } : asset;
}
