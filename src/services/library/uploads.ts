import type { Transaction } from 'sequelize';
import { UploadRow, publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core/refusal';
import { demand, type Actor } from '../people';
import { editWithin, freePlaylistName, inTurn, takeTurn, type MediaFiles } from '../plan';
import { batchSaid, tellFile } from './batches';
import { holdFiles, removeUnused } from './store';
import { screenSizes, wantRenditions } from './fitted';
import type { Inspection } from './inspect';
import { kindOfFile } from './kinds';
import { prepare, type Prepared } from './prepare';
import { makeThumbnail } from './renditions';
import { isSoundMedia, knownMedia, recordFile, uploadOf, type Upload } from './rows';
import { adopt, storedBytes, storedPath } from './store';
import { replacing } from './versions';

/** Uploads of the last hour that are under way or failed, newest first. */
export async function uploads(actor: Actor): Promise<Upload[]> {
  return rows<Upload>(
    `SELECT u.id, u.name, u.state, u.progress, u.error, o.slug AS replaces FROM uploads u LEFT JOIN plan_objects o ON o.id = u.replaces
     WHERE u.network_id = $1 AND u.state NOT IN ('sending', 'ready') AND u.created_at > now() - interval '1 hour'
     ORDER BY u.created_at DESC LIMIT 50`,
    [actor.networkId],
  );
}

/** How far one upload is, and once it is in, the id of its file in the library; null until then, or where it is gone. Throws 404 for none. */
export async function oneUpload({ networkId }: Actor, id: string): Promise<Upload & { readonly media: string | null }> {
  const row = await UploadRow.findOne({ where: { id, networkId } });
  if (!row) throw notFound('upload');
  const [media] = row.mediaId
    ? await rows<{ slug: string }>('SELECT slug FROM plan_objects WHERE id = $1', [row.mediaId])
    : [];
  return { ...uploadOf(row), media: media?.slug ?? null };
}

/** Takes a failed upload off the list. */
export async function dismissUpload(actor: Actor, id: string): Promise<void> {
  demand(actor, 'library');
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
  readonly text: string | null;
}

/** Moves what was prepared of a file into the store, and makes its thumbnail. */
async function stored(original: string, { path, found, text = '' }: Prepared): Promise<Made> {
  const asset = path ? await adopt(path) : { sha256: original, bytes: (await storedBytes(original)) ?? 0 };
  const thumbnail = await adopt(await makeThumbnail(storedPath(asset.sha256), found));
  return { original, asset, thumbnail, found, text: wordsOf(text) };
}

/** So much of a page's words is searched, in characters. */
const MOST_TEXT = 20_000;

/** A page's words as they are searched, each once behind a line's end; null for none. */
function wordsOf(text: string): string | null {
  const words = new Set(text.toLowerCase().match(/[\p{L}\p{Nd}][^\s\0]*/gu) ?? []);
  return words.size === 0
    ? null
    : [...words]
        .map((word) => `\n${word}`)
        .join('')
        .slice(0, MOST_TEXT);
}

/** What is measured of a file, as its document tells it. */
const measuresOf = ({ asset, found }: Made) => ({
  kind: found.kind,
  ...(found.kind === 'sound' ? {} : { width: found.width, height: found.height }),
  ...(found.kind !== 'sound' && found.audio ? { audio: true } : {}),
  bytes: asset.bytes,
  ...(found.durationMs === null ? {} : { durationMs: found.durationMs }),
  sha256: asset.sha256,
  type: found.type,
  ...(found.kind === 'video' && found.codec !== null ? { codec: found.codec } : {}),
});

const filesOf = ({ original, thumbnail, found, text }: Made): MediaFiles => ({
  ...{ originalSha256: original, thumbnailSha256: thumbnail.sha256, codec: found.codec, text },
});

/** How a new media file is called. Without `id`, one is made from the name. */
interface Naming {
  readonly id?: string;
  readonly name: string;
  readonly tags?: readonly string[];
  readonly available?: object | null;
  readonly added: string;
}

async function recordFiles(made: readonly Made[], within: Transaction): Promise<void> {
  for (const { asset, thumbnail, found } of made) {
    await recordFile({ ...asset, type: found.type }, within);
    await recordFile({ ...thumbnail, type: 'image/jpeg' }, within);
  }
}

/**
 * Makes a file the new version of a media file: whatever uses it follows, and what it was can be brought back. Throws 422 where it can't
 * take its place. Returns its row.
 */
async function replaceMedia(actor: Actor, row: string, made: readonly Made[], within: Transaction): Promise<string[]> {
  const [one] = made;
  if (!one || made.length > 1)
    throw new Refusal(
      422,
      `This document has ${made.length} pages, and only one can replace a file. Export that page alone.`,
    );
  await recordFiles(made, within);
  await editWithin(actor, [await replacing(row, measuresOf(one), filesOf(one), within)], within, { id: uuidv7() });
  return [row];
}

/** Writes media files and their changes; with several also a playlist that keeps them together, in order. Returns their row ids. */
async function recordMedia(
  actor: Actor,
  { id, name, tags = [], available, added }: Naming,
  made: readonly Made[],
  within: Transaction,
): Promise<string[]> {
  await recordFiles(made, within);
  const digits = String(made.length).length;
  const nameOf = (i: number) =>
    made.length === 1 ? name : `${name}, page ${String(i + 1).padStart(digits, '0')} of ${made.length}`;
  const { ids } = await editWithin(
    actor,
    made.map((one, i) => ({
      kind: 'media',
      id,
      add: {
        ...{ name: nameOf(i), added, ...measuresOf(one) },
        ...(tags.length > 0 ? { tags } : {}),
        ...(available ? { when: available } : {}),
      },
      files: filesOf(one),
    })),
    within,
  );
  if (made.length > 1) {
    const together = {
      name: await freePlaylistName(actor.networkId, name, within),
      items: ids.map((media) => ({ media })),
    };
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
    // What was said of the batch while the file was being made, and whether what it replaces is still there.
    await upload.reload({ transaction: within });
    const { batch, replaces } = upload;
    const { tags, available } = await batchSaid(networkId, batch, within);
    const twin = replaces ? null : await knownMedia(networkId, original, within);
    // The library has these files already, and sent again they repair what is damaged of them.
    if (twin) await recordFiles(made, within);
    const repaired = twin && made.length === 1 && !(await isSoundMedia(twin.id, within)) ? twin.id : null;
    // Whoever sent it was allowed to when it came.
    const actor: Actor = { networkId, personId, name: '', may: ['library'] };
    const replaced = replaces ?? repaired;
    const [first, ...others] = replaced
      ? await replaceMedia(actor, replaced, made, within)
      : twin
        ? [twin.id]
        : await recordMedia(actor, { name, tags, available, added: new Date().toISOString() }, made, within);
    await UploadRow.update(
      { state: 'ready', progress: 100, mediaId: first ?? null },
      { where: { id: upload.id }, transaction: within },
    );
    const sources = made.flatMap(({ asset, found }) => (found.kind === 'sound' ? [] : [{ ...asset, ...found }]));
    if (!twin) await wantRenditions(sources, await screenSizes(networkId, within), within);
    // Of every page is said what is said of the batch.
    if (twin) await tellFile(actor, twin.id, batch, within);
    await UploadRow.bulkCreate(
      others.map((mediaId) => ({
        ...{ networkId, personId, name, sha256: null, batch },
        ...{ state: 'ready' as const, progress: 100, mediaId },
      })),
      { transaction: within },
    );
  });
}

/** Puts a file of this machine into the library at once, without a job: for demo data. The file is moved into the store. */
export async function addFile(actor: Actor, path: string, naming: Naming): Promise<void> {
  demand(actor, 'library');
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
