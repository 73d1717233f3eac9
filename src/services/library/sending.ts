import { rm, stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { Refusal } from '@/core/refusal';
import { UploadRow, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { tellKnown } from './batches';
import { kindOfFile } from './kinds';
import { forgetPart, makePart, partPath, partSize, partsBefore, writePart } from './parts';
import { fileTitle, freeTitle, takeIn, type Received } from './receive';
import { checkRoom } from './room';
import { mediaRow, uploadOf } from './rows';
import { takeCopy } from './store';

/**
 * Files that come in parts, over as many requests as it takes: begun, gone on with from where they stand, whatever ended in between,
 * and taken in when the last byte is there.
 */

/** A file on its way: its size, and how much of it is here, in bytes. */
export interface Sending {
  readonly id: string;
  readonly bytes: number;
  readonly here: number;
}

/** Unfinished files are kept so long after their last byte: a weekend, and a day. */
const KEPT_MS = 3 * 86_400_000;
/** How long a file without an upload may stay: a request may be about to take it in. */
const STRAY_MS = 10 * 60_000;
const REMEMBERED_MS = 7 * 86_400_000;

/** A file that is to come. */
interface FileToCome {
  readonly name: string;
  readonly bytes: number;
  readonly batch: string | null;
  /** The id of the media file whose new version it is; null for a new one. */
  readonly replaces?: string | null;
}

/**
 * Begins a file of `bytes` bytes, as one of a batch. Throws 404 where what it replaces is not there, 413 or 507 with a sentence where it
 * does not fit, 422 for a name or a size that can't be.
 */
export async function beginUpload(actor: Actor, { name, bytes, batch, replaces = null }: FileToCome): Promise<string> {
  demand(actor, 'library');
  const own = fileTitle(name);
  if (bytes === 0) throw new Refusal(422, 'This file is empty. Choose another.');
  return transaction(async (within) => {
    // One after the other: each is counted before the next asks how much room is left.
    await rows('SELECT pg_advisory_xact_lock(hashtextextended($1, 7133))', [actor.networkId], within);
    await checkRoom(actor, bytes, within);
    const replaced = replaces === null ? null : await mediaRow(actor, replaces, within);
    const title = replaced === null ? await freeTitle(actor.networkId, name, within) : own;
    const { id } = await UploadRow.create(
      {
        ...{ id: uuidv7(), networkId: actor.networkId, personId: actor.personId },
        ...{ name: title, sha256: null, state: 'sending', bytes, batch, replaces: replaced },
      },
      { transaction: within },
    );
    return id;
  });
}

/**
 * Takes a file in that comes in one request, and whose size is known from its beginning. Throws as beginning and completing one do, 400
 * where another number of bytes came; nothing of it is left then.
 */
export async function receiveUpload(
  actor: Actor,
  { name, bytes }: Pick<FileToCome, 'name' | 'bytes'>,
  body: Readable,
): Promise<Received> {
  const id = await beginUpload(actor, { name, bytes, batch: null });
  try {
    await makePart(id);
    const came = await writePart(id, 0, bounded(body, bytes));
    if (came !== bytes)
      throw new Refusal(400, `${bytes} bytes were announced and ${came} arrived. Send the file again.`);
    return await completeUpload(actor, id);
  } catch (error) {
    await cancelUpload(actor, id);
    throw error;
  }
}

/** A body that breaks off past so many bytes. */
const bounded = (body: Readable, bytes: number): Readable =>
  Readable.from(
    (async function* () {
      let came = 0;
      for await (const chunk of body as AsyncIterable<Uint8Array>) {
        came += chunk.byteLength;
        if (came > bytes)
          throw new Refusal(400, `More than the announced ${bytes} bytes arrived. Send the file again.`);
        yield chunk;
      }
    })(),
    { objectMode: false },
  );

const rowOf = ({ networkId }: Actor, id: string) => UploadRow.findOne({ where: { id, networkId } });

/** How far a file is; all of it once it is taken in. Null for one that the actor's network does not have, or that failed. */
export async function findSending(actor: Actor, id: string): Promise<Sending | null> {
  demand(actor, 'library');
  const row = await rowOf(actor, id);
  if (!row?.bytes || row.state === 'failed') return null;
  const here = row.state === 'sending' ? await partSize(id) : row.bytes;
  return here === null ? null : { id, bytes: row.bytes, here };
}

/**
 * Takes a file in, all of whose bytes are here. May be called again, whatever became of the first call. Throws 404 for none, 409 for one
 * that is not here whole, 415 with a sentence for what can't be played: nothing of that is left then.
 */
export async function completeUpload(actor: Actor, id: string): Promise<Received> {
  demand(actor, 'library');
  const row = await rowOf(actor, id);
  if (!row) throw notFound('upload');
  const { bytes } = row;
  if (row.state !== 'sending' || bytes === null) return received(row);
  if ((await partSize(id)) !== bytes) throw notWhole();
  // Another request may still have the part open: what the store gets is a copy of our own.
  const copy = await takeCopy(partPath(id));
  try {
    if (copy.bytes !== bytes) throw notWhole();
    const taken = await takeIn(actor, { ...copy, ...(await kindOfFile(copy.path)) }, id);
    if (!taken) return await completeUpload(actor, id);
    await forgetPart(id);
    if ('known' in taken) await tellKnown(actor, await row.reload());
    return taken;
  } catch (error) {
    if (error instanceof Refusal && error.status !== 409) await cancelUpload(actor, id);
    throw error;
  } finally {
    await rm(copy.path, { force: true });
  }
}

const notWhole = () => new Refusal(409, 'This file isn’t complete yet. Continue sending it.');

async function received(row: UploadRow): Promise<Received> {
  const [known] = row.mediaId
    ? await rows<{ name: string }>('SELECT name FROM plan_objects WHERE id = $1', [row.mediaId])
    : [];
  return known ? { known: known.name } : { upload: uploadOf(row) };
}

/** Lets go of a file on its way, and of what is here of it. Nothing happens where it is taken in already. */
export async function cancelUpload(actor: Actor, id: string): Promise<void> {
  demand(actor, 'library');
  const { networkId } = actor;
  if ((await UploadRow.destroy({ where: { id, networkId, state: 'sending' } })) > 0) await forgetPart(id);
}

/** Forgets uploads that ended a week before `now`, and drops unfinished ones that have stopped. Returns how many unfinished ones. */
export async function clearUploads(now: Date): Promise<number> {
  await rows("DELETE FROM uploads WHERE state IN ('ready', 'failed') AND created_at < $1", [
    new Date(now.getTime() - REMEMBERED_MS),
  ]);
  await rows(
    'DELETE FROM batches b WHERE said_at < $1 AND NOT EXISTS (SELECT FROM uploads u WHERE u.network_id = b.network_id AND u.batch = b.id)',
    [new Date(now.getTime() - REMEMBERED_MS)],
  );
  const sending = await rows<{ id: string; created_at: Date }>(
    "SELECT id, created_at FROM uploads WHERE state = 'sending'",
  );
  let cleared = 0;
  for (const { id, created_at: begun } of sending) {
    const touched = await stat(partPath(id)).then(
      ({ mtime }) => mtime,
      () => begun,
    );
    if (now.getTime() - Math.max(touched.getTime(), begun.getTime()) < KEPT_MS) continue;
    await UploadRow.destroy({ where: { id, state: 'sending' } });
    await forgetPart(id);
    cleared++;
  }
  // Parts of uploads that were ended while a request was writing to them; with another database beside this folder they are not ours.
  const [store] = await rows<{ ours: boolean }>('SELECT paired AND problem IS NULL AS ours FROM store');
  if (!store?.ours) return cleared;
  for (const id of await partsBefore(new Date(now.getTime() - STRAY_MS)))
    if (!(await UploadRow.findOne({ where: { id, state: 'sending' } }))) await forgetPart(id);
  return cleared;
}
