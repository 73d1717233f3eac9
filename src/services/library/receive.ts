import { rm } from 'node:fs/promises';
import { extname } from 'node:path';
import type { Transaction } from 'sequelize';
import { MOST_OF_NAME } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { isSeen, lineOf } from '@/core/text';
import { UploadRow, enqueue, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';
import type { FileKind, Nature } from './kinds';
import { isSoundMedia, knownMedia, recordFile, uploadOf, type Upload } from './rows';
import { holdFiles, keep } from './store';

/** What became of a file that was sent: it waits for the worker, or the library has it already under this name. */
export type Received = { readonly upload: Upload } | { readonly known: string };

/** What takes no long time to be made into what players show. */
const SHORT: readonly Nature[] = ['picture', 'foreign-picture', 'drawing'];

/** A complete file outside the store, which no other process has open. */
interface Whole extends FileKind {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** The upload's row, locked until the transaction ends; null if another request took the file in first. Throws 404 if it is gone. */
async function heldRow({ networkId }: Actor, id: string, within: Transaction): Promise<UploadRow | null> {
  const row = await UploadRow.findOne({ where: { id, networkId }, transaction: within, lock: within.LOCK.UPDATE });
  if (!row) throw notFound('upload');
  return row.state === 'sending' ? row : null;
}

/** Throws 403 where the person who sends was removed since the request began. */
async function stillHere({ personId }: Actor, within: Transaction): Promise<void> {
  if (personId === null) return;
  const here = await rows('SELECT 1 FROM people WHERE id = $1 AND removed_at IS NULL', [personId], within);
  if (here.length === 0) throw new Refusal(403, 'You are no longer part of this network, so nothing was saved.');
}

/**
 * Moves a whole file into the store; it, its upload and the job are written together. What more is to be found out takes time and memory:
 * a worker's affair. What the library has already becomes no second media file; if the library's copy is damaged, it is made again. Null
 * if another request took it in first.
 */
export async function takeIn(
  actor: Actor,
  { path, sha256, bytes, nature, type }: Whole,
  id: string,
): Promise<Received | null> {
  const { networkId } = actor;
  return transaction(async (within) => {
    const upload = await heldRow(actor, id, within);
    if (!upload) return null;
    await stillHere(actor, within);
    // Keeps the clean-up from removing the older copy at this moment.
    await holdFiles([sha256], within);
    const known = await knownMedia(networkId, sha256, within);
    // Of a new version the library may have the bytes under another name: then both are made of them.
    if (known && (!upload.replaces || upload.replaces === known.id) && (await isSoundMedia(known.id, within))) {
      await upload.set({ state: 'ready', progress: 100, mediaId: known.id }).save({ transaction: within });
      await rm(path, { force: true });
      return { known: known.name };
    }
    const twin = await twinOf(upload, sha256, within);
    if (twin) {
      await upload.set({ state: 'ready', progress: 100 }).save({ transaction: within });
      await rm(path, { force: true });
      return { known: twin.name };
    }
    await keep(path, sha256);
    await recordFile({ sha256, bytes, type }, within);
    await upload.set({ sha256, state: 'waiting' }).save({ transaction: within });
    const job = SHORT.includes(nature) ? 'process-picture' : 'process-upload';
    await enqueue(job, { upload: upload.id }, within, -(await uploadsAhead(networkId, within)));
    await publish({ kind: 'uploads', network: networkId }, within);
    return { upload: uploadOf(upload) };
  });
}

/** A file of the same bytes that came together with this one and is still being prepared: one of them is enough. */
async function twinOf({ networkId, batch, replaces }: UploadRow, sha256: string, within: Transaction) {
  if (replaces !== null || batch === null) return null;
  return UploadRow.findOne({
    where: { networkId, sha256, batch, replaces: null, state: ['waiting', 'working'] },
    transaction: within,
  });
}

/** How many uploads of the network wait already: the more, the later the next one's turn, so that networks take turns. */
async function uploadsAhead(networkId: string, within: Transaction): Promise<number> {
  return UploadRow.count({ where: { networkId, state: ['waiting', 'working'] }, transaction: within });
}

/**
 * What a new file is called in the library: without its ending, unless another is called so already: of jingle.mp4 and jingle.png the second is
 * "jingle.png", and a second jingle.png "jingle.png (2)". Throws as `fileTitle` does.
 */
export async function freeTitle(networkId: string, name: string, within: Transaction): Promise<string> {
  const [title, whole] = [fileTitle(name), lineOf(name, MOST_OF_NAME - 8)];
  // Names are compared without accents, as the library finds them.
  const [found] = await rows<{ title: string; whole: string; taken: string[] }>(
    `SELECT folded($2) AS title, folded($3) AS whole, ARRAY(
       SELECT name FROM media_index WHERE network_id = $1 AND (name = folded($2) OR starts_with(name, folded($3)))
       UNION SELECT folded(name) FROM uploads WHERE network_id = $1 AND state IN ('sending', 'waiting', 'working')) AS taken`,
    [networkId, title, whole],
    within,
  );
  const taken = new Set(found?.taken);
  if (!found || !taken.has(found.title)) return title;
  if (!taken.has(found.whole)) return whole;
  for (let n = 2; ; n++) if (!taken.has(`${found.whole} (${n})`)) return `${whole} (${n})`;
}

/** The name of a file without its ending. Throws 422 for a path, or nothing. */
export function fileTitle(name: string): string {
  if (/[/\\\0]/.test(name) || name === '..' || !isSeen(name))
    throw new Refusal(422, 'This file name is empty or contains a path. Rename the file, then upload it again.');
  const line = lineOf(name, MOST_OF_NAME);
  const title = line
    .slice(0, line.length - extname(line).length)
    .replace(/[_\s]+/g, ' ')
    .trim();
  return isSeen(title) ? title : line;
}
