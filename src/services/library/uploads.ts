import type { Transaction } from 'sequelize';
import { MediaFilesRow, UploadRow, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core';
import type { Actor } from '../people';
import { editWithin, inTurn, takeTurn } from '../plan';
import { holdFiles, removeUnused } from './clean-up';
import { decodeFilm, inspect, type Inspection } from './inspect';
import { makeThumbnail, makeUpright } from './renditions';
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
 * Makes a received file a media file: measures it, turns it upright, makes its thumbnail. May be run again after a crash at
 * any point. A file that proves broken fails the upload with a sentence, and is removed.
 */
export async function processUpload(id: string): Promise<void> {
  const upload = await UploadRow.findByPk(id);
  if (!upload?.sha256 || upload.state === 'ready' || upload.state === 'failed') return;
  const { sha256, networkId } = upload;
  const tell = progressTeller(upload);
  await tell(2);
  try {
    const path = storedPath(sha256);
    const found = await inspect(path);
    await tell(10);
    if (found.kind === 'video') await decodeFilm(path, found, (share) => void tell(10 + Math.round(share * 75)));
    const files = await makeRenditions(sha256, found);
    await tell(90);
    await finish(upload, found, files);
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

/** What a media file consists of: the file as it came, as players get it, and its thumbnail. */
interface MediaFiles {
  readonly original: string;
  readonly asset: StoredFile;
  readonly thumbnail: StoredFile;
}

async function makeRenditions(original: string, found: Inspection): Promise<MediaFiles> {
  const path = storedPath(original);
  const upright = await makeUpright(path, found);
  const asset = upright ? await adopt(upright) : { sha256: original, bytes: (await storedBytes(original)) ?? 0 };
  const thumbnail = await adopt(await makeThumbnail(storedPath(asset.sha256), found));
  return { original, asset, thumbnail };
}

/** How a new media file is called. Without `id`, one is made from the name. */
interface Naming {
  readonly id?: string;
  readonly name: string;
  readonly tags?: readonly string[];
  readonly available?: object | null;
  readonly added: string;
}

/** Writes a media file and its change. */
async function recordMedia(
  actor: Actor,
  naming: Naming,
  found: Inspection,
  files: MediaFiles,
  within: Transaction,
): Promise<string> {
  await recordFile({ ...files.asset, type: found.type }, within);
  await recordFile({ ...files.thumbnail, type: 'image/jpeg' }, within);
  const { id, name, tags = [], available, added } = naming;
  const add = {
    name,
    kind: found.kind,
    width: found.width,
    height: found.height,
    bytes: files.asset.bytes,
    ...(found.durationMs === null ? {} : { durationMs: found.durationMs }),
    ...(tags.length > 0 ? { tags } : {}),
    ...(available ? { when: available } : {}),
    added,
    sha256: files.asset.sha256,
    type: found.type,
  };
  const made = { originalSha256: files.original, thumbnailSha256: files.thumbnail.sha256, codec: found.codec };
  await editWithin(actor, [{ kind: 'media', id, add, files: made }], within);
  return (
    await MediaFilesRow.findOne({
      where: { networkId: actor.networkId, originalSha256: files.original },
      order: [['mediaId', 'DESC']],
      transaction: within,
      rejectOnEmpty: true,
    })
  ).mediaId;
}

async function finish(upload: UploadRow, found: Inspection, files: MediaFiles): Promise<void> {
  const { networkId, personId, name } = upload;
  await inTurn(networkId, async (within) => {
    // Two uploads of one network take turns from here, so that the second finds what the first has made.
    await takeTurn(networkId, within);
    const made = [...new Set([files.original, files.asset.sha256, files.thumbnail.sha256])].sort();
    await holdFiles(made, within);
    for (const sha256 of made)
      if ((await storedBytes(sha256)) === null) throw new Error(`The file ${sha256} is gone: it is made again.`);
    await recordFile(
      { sha256: files.original, bytes: (await storedBytes(files.original)) ?? 0, type: found.type },
      within,
    );
    const twin = await knownMedia(networkId, files.original, within);
    // What was said of the batch while the file was being made.
    await upload.reload({ transaction: within });
    const { tags, available } = upload;
    const mediaId =
      twin?.id ??
      (await recordMedia(
        { networkId, personId, name: '' },
        { name, tags, available, added: new Date().toISOString() },
        found,
        files,
        within,
      ));
    await UploadRow.update(
      { state: 'ready', progress: 100, mediaId },
      { where: { id: upload.id }, transaction: within },
    );
  });
}

/** Puts a file of this machine into the library at once, without a job: for demo data. The file is moved into the store. */
export async function addFile(actor: Actor, path: string, naming: Naming): Promise<void> {
  const found = await inspect(path);
  const { sha256, bytes } = await adopt(path);
  const files = await makeRenditions(sha256, found);
  await transaction(async (within) => {
    await recordFile({ sha256, bytes, type: found.type }, within);
    await recordMedia(actor, naming, found, files, within);
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
