import { rm } from 'node:fs/promises';
import { extname } from 'node:path';
import type { Readable } from 'node:stream';
import type { Transaction } from 'sequelize';
import { config } from '@/config';
import { MOST_OF_NAME, Refusal, isSeen, lineOf } from '@/core';
import { UploadRow, enqueue, publish, transaction } from '@/database';
import type { Actor } from '../people';
import { holdFiles } from './clean-up';
import { kindOfFile, type Kind, type Nature } from './kinds';
import { knownMedia, recordFile, uploadOf, type Upload } from './rows';
import { incomingPath, keep, receive } from './store';

/** What became of a file that was sent: it waits for the worker, or the library has it already under this name. */
export type Received = { readonly upload: Upload } | { readonly known: string };

/**
 * Takes a file in that comes in one go. It is received, hashed, and looked at no further than its first bytes before anything is written
 * to the database. Throws 413, 415 or 422 with a sentence, and leaves nothing behind.
 */
export async function receiveUpload(actor: Actor, name: string, body: Readable): Promise<Received> {
  const title = fileTitle(name);
  const path = await incomingPath();
  try {
    const { sha256, bytes } = await receive(body, path, config().uploadLimit);
    if (bytes === 0) throw new Refusal(422, 'This file is empty: choose another.');
    const { networkId, personId } = actor;
    return await takeIn(
      actor,
      { path, sha256, bytes, ...(await kindOfFile(path)) },
      UploadRow.build({ networkId, personId, name: title, sha256: null, state: 'waiting', bytes }),
    );
  } finally {
    await rm(path, { force: true });
  }
}

/** What takes no long time to be made into what players show. */
const SHORT: readonly Nature[] = ['picture', 'foreign-picture', 'drawing'];

/** A file that is here whole, outside the store. */
interface Whole extends Kind {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

/**
 * Moves a whole file into the store; it, its upload and the job are written together. What more is to be found out takes time and memory:
 * a worker's affair. What the library has already becomes no second media file.
 */
export async function takeIn(
  actor: Actor,
  { path, sha256, bytes, nature, type }: Whole,
  upload: UploadRow,
): Promise<Received> {
  const { networkId } = actor;
  return transaction(async (within) => {
    // No clean-up takes its older copy away meanwhile.
    await holdFiles([sha256], within);
    const known = await knownMedia(networkId, sha256, within);
    // Of a new version the library may have the bytes under another name: then both are made of them.
    if (known && (!upload.replaces || upload.replaces === known.id)) {
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
