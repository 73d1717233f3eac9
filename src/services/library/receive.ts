import { rm } from 'node:fs/promises';
import { extname } from 'node:path';
import type { Transaction } from 'sequelize';
import { MOST_OF_NAME, Refusal, isSeen, lineOf } from '@/core';
import { UploadRow, enqueue, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import type { Actor } from '../people';
import type { Kind, Nature } from './kinds';
import { isSoundMedia, knownMedia, recordFile, uploadOf, type Upload } from './rows';
import { holdFiles, keep } from './store';

/** What became of a file that was sent: it waits for the worker, or the library has it already under this name. */
export type Received = { readonly upload: Upload } | { readonly known: string };

/** What takes no long time to be made into what players show. */
const SHORT: readonly Nature[] = ['picture', 'foreign-picture', 'drawing'];

/** A file that is here whole, outside the store, and that nobody else has open. */
interface Whole extends Kind {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** The upload's row, held until the transaction ends; null where another request took the file in meanwhile. Throws 404 where it is gone. */
async function heldRow({ networkId }: Actor, id: string, within: Transaction): Promise<UploadRow | null> {
  const row = await UploadRow.findOne({ where: { id, networkId }, transaction: within, lock: within.LOCK.UPDATE });
  if (!row) throw notFound('upload');
  return row.state === 'sending' ? row : null;
}

/** Throws 403 where the person who sends was removed since the request began. */
async function stillHere({ personId }: Actor, within: Transaction): Promise<void> {
  if (personId === null) return;
  const here = await rows('SELECT 1 FROM people WHERE id = $1 AND removed_at IS NULL', [personId], within);
  if (here.length === 0) throw new Refusal(403, 'You are no longer part of this network: nothing was kept.');
}

/**
 * Moves a whole file into the store; it, its upload and the job are written together. What more is to be found out takes time and memory:
 * a worker's affair. What the library has already becomes no second media file; if the library's copy is damaged, it is made again. Null
 * where another request took it in meanwhile.
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
    // No clean-up takes its older copy away meanwhile.
    await holdFiles([sha256], within);
    const known = await knownMedia(networkId, sha256, within);
    // Of a new version the library may have the bytes under another name: then both are made of them.
    if (known && (!upload.replaces || upload.replaces === known.id) && (await isSoundMedia(known.id, within))) {
      await upload.set({ state: 'ready', progress: 100, mediaId: known.id }).save({ transaction: within });
      await rm(path, { force: true });
      return { known: known.name };
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

/** How many uploads of the network wait already: the more, the later the next one's turn, so that networks take turns. */
async function uploadsAhead(networkId: string, within: Transaction): Promise<number> {
  return UploadRow.count({ where: { networkId, state: ['waiting', 'working'] }, transaction: within });
}

/** What a file is called in the library: its name without its ending. Throws 422 for a path, or nothing. */
export function fileTitle(name: string): string {
  if (/[/\\\0]/.test(name) || name === '..' || !isSeen(name))
    throw new Refusal(422, 'This file name holds a path or nothing: rename the file, then upload it again.');
  const line = lineOf(name, MOST_OF_NAME);
  const title = line
    .slice(0, line.length - extname(line).length)
    .replace(/[_\s]+/g, ' ')
    .trim();
  return isSeen(title) ? title : line;
}
