import type { Transaction } from 'sequelize';
import { UploadRow, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core';
import type { Actor } from '../people';
import { editWithin, inTurn, takeTurn } from '../plan';
import { holdFiles, removeUnused } from './clean-up';
import { screenSizes, wantRenditions } from './fitted';
import type { Inspection } from './inspect';
import { kindOfFile } from './kinds';
import { prepare, type Prepared } from './prepare';
import { makeThumbnail } from './renditions';
import { knownMedia, recordFile, type Upload } from './rows';
import { adopt, storedBytes, storedPath } from './store';

/** Uploads of the last hour that are under way or failed, newest first. */
export async function uploads(actor: Actor): Promise<Upload[]> {
  return rows<Upload>(
    `SELECT id, name, state, progress, error FROM uploads
     WHERE network_id = $1 AND state NOT IN ('sending', 'ready') AND created_at > now() - interval '1 hour' ORDER BY created_at DESC LIMIT 50`,
    [actor.networkId],
  );
}

/** Takes a failed upload off the list. */
export async function dismissUpload(actor: Actor, id: string): Promise<void> {
  const removed = await UploadRow.destroy({ where: { id, networkId: actor.networkId, state: 'failed' } });
  if (removed === 0) throw notFound('failed upload');
  await publish({ kind: 'uploads', network: actor.networkId });
}

/**
 * Makes a received file a media file, or one for each of its pages: measures it, makes what players show and its thumbnail. May be run
 * again after a crash at any point. A file that proves broken fails the upload with a sentence, and is removed.
 */
export async function processUpload(id: string): Promise<void> {
  const upload = await UploadRow.findByPk(id);
  if (!upload?.sha256 || upload.state === 'ready' || upload.state === 'failed') return;
  const { sha256, networkId } = upload;
  const tell = progressTeller(upload);
  await tell(2);
  try {
    const made: Made[] = [];
    for await (const one of prepare(storedPath(sha256), (share) => void tell(10 + Math.round(share * 80))))
      made.push(await stored(sha256, one));
    await tell(92);
    await finish(upload, made);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    await failUpload(id, error.message);
  }
  await publish({ kind: 'uploads', network: networkId });
}

/** Writes progress at most five times a second. */
function progressTeller(upload: UploadRow): (percent: number) => Promise<void> {
  let last = 0;
  return async (percent) => {
    if (Date.now() - last < 200) return;
    last = Date.now();
    await rows(
      "UPDATE uploads SET state = 'working', progress = $2 WHERE id = $1 AND state IN ('waiting', 'working')",
      [upload.id, percent],
    );
    const { id, name, networkId } = upload;
    await publish({
      kind: 'uploads',
      network: networkId,
      upload: { id, name, state: 'working', progress: percent, error: null },
    });
  };
}

interface StoredFile {
  readonly sha256: string;
  readonly bytes: number;
}

/** What a media file consists of: the file as it came, as players get it, and its thumbnail; and what it is. */
interface Made {
  readonly original: string;
  readonly asset: StoredFile;
  readonly thumbnail: StoredFile;
  readonly found: Inspection;
}

/** Moves what was prepared of a file into the store, and makes its thumbnail. */
async function stored(original: string, { path, found }: Prepared): Promise<Made> {
  const asset = path ? await adopt(path) : { sha256: original, bytes: (await storedBytes(original)) ?? 0 };
  const thumbnail = await adopt(await makeThumbnail(storedPath(asset.sha256), found));
  return { original, asset, thumbnail, found };
}

/** How a new media file is called. Without `id`, one is made from the name. */
interface Naming {
  readonly id?: string;
  readonly name: string;
  readonly tags?: readonly string[];
  readonly available?: object | null;
  readonly added: string;
}

/** Writes media files and their changes; with several also a playlist that keeps them together, in order. Returns their row ids. */
async function recordMedia(
  actor: Actor,
  { id, name, tags = [], available, added }: Naming,
  made: readonly Made[],
  within: Transaction,
): Promise<string[]> {
  for (const { asset, thumbnail, found } of made) {
    await recordFile({ ...asset, type: found.type }, within);
    await recordFile({ ...thumbnail, type: 'image/jpeg' }, within);
  }
  const digits = String(made.length).length;
  const nameOf = (i: number) =>
    made.length === 1 ? name : `${name}, page ${String(i + 1).padStart(digits, '0')} of ${made.length}`;
  const { ids } = await editWithin(
    actor,
    made.map(({ original, asset, thumbnail, found }, i) => ({
      kind: 'media',
      id,
      add: {
        name: nameOf(i),
        kind: found.kind,
        ...(found.kind === 'sound' ? {} : { width: found.width, height: found.height }),
        ...(found.kind !== 'sound' && found.audio ? { audio: true } : {}),
        bytes: asset.bytes,
        ...(found.durationMs === null ? {} : { durationMs: found.durationMs }),
        ...(tags.length > 0 ? { tags } : {}),
        ...(available ? { when: available } : {}),
        added,
        sha256: asset.sha256,
        type: found.type,
      },
      files: { originalSha256: original, thumbnailSha256: thumbnail.sha256, codec: found.codec },
    })),
    within,
  );
  if (made.length > 1) {
    const together = { name: await freeName(actor.networkId, name, within), items: ids.map((media) => ({ media })) };
    await editWithin(actor, [{ kind: 'playlist', add: together }], within);
  }
  const found = await rows<{ id: string; slug: string }>(
    "SELECT id, slug FROM plan_objects WHERE network_id = $1 AND kind = 'media' AND slug = ANY($2)",
    [actor.networkId, ids],
    within,
  );
  const rowOf = new Map(found.map((row) => [row.slug, row.id]));
  return ids.flatMap((slug) => rowOf.get(slug) ?? []);
}

/** A playlist's name that nobody has: with a number behind it where it is taken. */
async function freeName(networkId: string, name: string, within: Transaction): Promise<string> {
  const found = await rows<{ name: string }>(
    "SELECT lower(name) AS name FROM plan_objects WHERE network_id = $1 AND kind = 'playlist'",
    [networkId],
    within,
  );
  const taken = new Set(found.map((one) => one.name));
  for (let n = 1; ; n++) {
    const wanted = n === 1 ? name : `${name} (${n})`;
    if (!taken.has(wanted.toLowerCase())) return wanted;
  }
}

async function finish(upload: UploadRow, made: readonly Made[]): Promise<void> {
  const { networkId, personId, name } = upload;
  const original = made[0]?.original;
  if (original === undefined) throw new Error('nothing was made of an upload');
  await inTurn(networkId, async (within) => {
    // Two uploads of one network take turns from here, so that the second finds what the first has made.
    await takeTurn(networkId, within);
    const hashes = made.flatMap(({ asset, thumbnail }) => [asset.sha256, thumbnail.sha256]);
    const files = [...new Set([original, ...hashes])].sort();
    await holdFiles(files, within);
    for (const sha256 of files)
      if ((await storedBytes(sha256)) === null) throw new Error(`The file ${sha256} is gone: it is made again.`);
    const twin = await knownMedia(networkId, original, within);
    // What was said of the batch while the file was being made.
    await upload.reload({ transaction: within });
    const { tags, available, batch } = upload;
    const [first, ...others] = twin
      ? [twin.id]
      : await recordMedia(
          { networkId, personId, name: '' },
          { name, tags, available, added: new Date().toISOString() },
          made,
          within,
        );
    await UploadRow.update(
      { state: 'ready', progress: 100, mediaId: first ?? null },
      { where: { id: upload.id }, transaction: within },
    );
    const sources = made.flatMap(({ asset, found }) => (found.kind === 'sound' ? [] : [{ ...asset, ...found }]));
    if (!twin) await wantRenditions(sources, await screenSizes(networkId, within), within);
    // What is said of the batch is said of every page.
    await UploadRow.bulkCreate(
      others.map((mediaId) => ({
        ...{ networkId, personId, name, sha256: null, batch, tags, available },
        ...{ state: 'ready' as const, progress: 100, mediaId },
      })),
      { transaction: within },
    );
  });
}

/** Puts a file of this machine into the library at once, without a job: for demo data. The file is moved into the store. */
export async function addFile(actor: Actor, path: string, naming: Naming): Promise<void> {
  const { type } = await kindOfFile(path);
  const { sha256, bytes } = await adopt(path);
  const made: Made[] = [];
  for await (const one of prepare(storedPath(sha256), () => {})) made.push(await stored(sha256, one));
  await transaction(async (within) => {
    await recordFile({ sha256, bytes, type }, within);
    await recordMedia(actor, naming, made, within);
  });
}

/** Ends an upload with a sentence, and lets go of its file. */
export async function failUpload(id: string, message: string): Promise<void> {
  const upload = await UploadRow.findByPk(id);
  if (!upload) return;
  const { sha256 } = upload;
  await upload.update({ state: 'failed', error: message, sha256: null });
  if (sha256) await removeUnused(sha256);
}
