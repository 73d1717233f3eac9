import { DataStore, ERRORS, Upload, type Locker } from '@tus/utils';
import { Server } from '@tus/server';
import type { Readable } from 'node:stream';
import * as z from 'zod';
import { idSchema } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { logOnce } from '@/log';
import { problemDocument } from '@/services/errors';
import {
  beginUpload,
  cancelUpload,
  completeUpload,
  findSending,
  makePart,
  uploadLocks,
  writePart,
  type Received,
} from '@/services/library';
import type { Actor } from '@/services/people';
import { troubleOf } from '@/services/trouble';
import { readInput } from '@/services/people';

/**
 * Uploads that go on where they stopped, by tus 1.0 (https://tus.io/protocols/resumable-upload): creation (small files with their
 * bytes at once) and termination. The files and
 * what becomes of them are the library's; here is the protocol alone.
 */

export const UPLOADS_PATH = '/api/uploads';

/** One request at a time writes to a file, whichever web process it came to. */
const lockerOf = (actor: Actor): Locker => ({
  newLock: (id) => ({
    async lock(signal, stop) {
      if (!(await uploadLocks().hold(id, { actor, stop: () => void stop() }, signal))) throw ERRORS.ERR_LOCK_TIMEOUT;
    },
    unlock: () => uploadLocks().letGo(id),
  }),
});

/** The library as the protocol's store, for one person. */
class LibraryStore extends DataStore {
  override extensions = ['creation', 'creation-with-upload', 'termination'];

  constructor(private readonly actor: Actor) {
    super();
  }

  override async create(upload: Upload): Promise<Upload> {
    await makePart(upload.id);
    return upload;
  }

  override async getUpload(id: string): Promise<Upload> {
    const found = isId(id) ? await findSending(this.actor, id) : null;
    if (!found) throw ERRORS.FILE_NOT_FOUND;
    return new Upload({ id, size: found.bytes, offset: found.here });
  }

  override async write(body: Readable, id: string, offset: number): Promise<number> {
    return writePart(id, offset, body);
  }

  override async remove(id: string): Promise<void> {
    await cancelUpload(this.actor, id);
  }
}

const isId = (text: string) => z.uuid().safeParse(text).success;

const metadataSchema = z.object({
  filename: z.string('The file has no name. Send it as “filename”.'),
  batch: z.uuid('A batch is named by a UUID.').optional(),
  replaces: idSchema.optional(),
});

/** A refusal as the protocol's library takes it. */
function told(error: unknown): unknown {
  if ((error as { status_code?: unknown }).status_code !== undefined) return error;
  const refusal = error instanceof Refusal ? error : troubleOf(error);
  if (!refusal) logOnce(error, 'an upload failed');
  const known =
    refusal ?? new Refusal(500, 'Something went wrong on the server. Nothing is lost, it will be tried again.');
  return { status_code: known.status, body: JSON.stringify(problemDocument(known)) };
}

const telling =
  <A extends unknown[], T>(work: (...args: A) => Promise<T>) =>
  async (...args: A): Promise<T> => {
    try {
      return await work(...args);
    } catch (error) {
      throw told(error);
    }
  };

/** Answers a request of the protocol. The answer to the last part describes the received file as JSON. */
export async function answerTus(request: Request, actor: Actor): Promise<Response> {
  const server = new Server({
    path: UPLOADS_PATH,
    datastore: new LibraryStore(actor),
    locker: lockerOf(actor),
    relativeLocation: true,
    allowedOrigins: [],
    namingFunction: telling(async (incoming, metadata) => {
      const { filename, batch, replaces } = readInput(metadataSchema, metadata ?? {});
      const bytes = Number(incoming.headers.get('upload-length') ?? NaN);
      return beginUpload(actor, {
        ...{ name: filename, bytes: readInput(z.int().min(0), bytes) },
        ...{ batch: batch ?? null, replaces: replaces ?? null },
      });
    }),
    onIncomingRequest: telling(async (incoming, id) => {
      // The last answer may have been lost: what is here whole is taken in before it is asked about.
      if (incoming.method === 'HEAD' && isId(id)) await completeIfWhole(actor, id);
    }),
    onUploadFinish: telling(async ({ method }, { id }) => answerOf(method, await completeUpload(actor, id))),
    onResponseError: (_, error) => Promise.resolve(told(error) as { status_code: number; body: string }),
  });
  return server.handleWeb(request);
}

async function completeIfWhole(actor: Actor, id: string): Promise<void> {
  const found = await findSending(actor, id);
  if (found && found.here === found.bytes) await completeUpload(actor, id);
}

/** What was begun and is whole at once is still answered as begun: else it would have no address. */
const answerOf = (method: string, received: Received) => ({
  status_code: method === 'POST' ? 201 : 200,
  headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' },
  body: JSON.stringify(received),
});
