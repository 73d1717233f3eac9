import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { DetailedError, Upload } from 'tus-js-client';
import { v7 as uuidv7 } from 'uuid';
import { Refusal } from '@/core/refusal';
import { ServerClient } from './server-client';

/** Sends files into a server's library by a personal key: in parts, gone on with after a broken line, and waited for until they are in. */

/** What became of a file. */
export interface Sent {
  readonly file: string;
  /** In the library, there already, or refused. */
  readonly became: 'in' | 'known' | 'refused';
  /** What it is called there, or why it was refused. */
  readonly said: string;
  /** Refused for what the file is: another try would not change it. */
  readonly final?: boolean;
  /** Its id in the library, once it came in. */
  readonly media?: string;
  /** The status of a refusal. */
  readonly status?: number;
}

const SOON_MS = [500, 1000, 2000, 5000, 10_000];
/** Up to this size a file is sent with its first request. */
const SMALL_BYTES = 1_000_000;
const ASKED_EVERY_MS = 400;
/** Answers that another try may change. */
const isPassing = (status: number) => [0, 408, 409, 423, 429, 500, 502, 503, 504].includes(status);

interface Received {
  readonly known?: string;
  readonly upload?: { readonly id: string; readonly name: string };
}

interface Progress {
  readonly state: string;
  readonly error: string | null;
  readonly media: string | null;
}

export class LibraryClient extends ServerClient {
  /** `patient`: a line that is broken is waited for as long as it takes; else some seconds. */
  constructor(
    server: string,
    key: string,
    private readonly patient = false,
  ) {
    super(server, key);
  }

  /** Looks whether the key opens the library. Throws a Refusal with a sentence where it does not. */
  async check(): Promise<void> {
    await this.ask('/api/uploads');
  }

  /** Files are sent as one batch: what is said of it holds for all of them. */
  async describe(batch: string, tags: readonly string[]): Promise<void> {
    await this.send('PUT', `/api/batches/${batch}`, { tags });
  }

  readonly newBatch = () => uuidv7();

  /** Sends a file, and waits until it is in the library or refused. `replaces` is the id of the file whose new version it is. */
  async sendFile(file: string, batch: string, replaces?: string): Promise<Sent> {
    try {
      const found = await stat(file);
      if (found.isDirectory())
        throw new Refusal(422, 'This is a folder. Name the files in it, or send it with lanternpost watch.');
      const { size } = found;
      if (size === 0) throw new Refusal(422, 'This file is empty. Choose another.');
      const received = await this.bytes(file, size, batch, replaces);
      if (received.known !== undefined) return { file, became: 'known', said: received.known };
      const { error = null, media = null } = received.upload ? await this.settled(received.upload.id) : {};
      return error === null
        ? { file, became: 'in', said: received.upload?.name ?? basename(file), ...(media === null ? {} : { media }) }
        : { file, became: 'refused', said: error, final: true };
    } catch (error) {
      if (error instanceof Refusal)
        return {
          ...{ file, became: 'refused', said: error.message, status: error.status },
          final: [413, 415, 422].includes(error.status),
        };
      const code = (error as NodeJS.ErrnoException).code;
      if (code !== undefined) return { file, became: 'refused', said: `This file can’t be read (${code}).` };
      throw error;
    }
  }

  private bytes(file: string, size: number, batch: string, replaces?: string): Promise<Received> {
    return new Promise((resolve, reject) => {
      const upload = new Upload(createReadStream(file), {
        endpoint: new URL('/api/uploads', this.server).href,
        uploadSize: size,
        headers: this.headers,
        metadata: { filename: basename(file), batch, ...(replaces === undefined ? {} : { replaces }) },
        // One request in place of two; what breaks off then is sent again from its beginning.
        uploadDataDuringCreation: size <= SMALL_BYTES,
        retryDelays: this.patient ? [...SOON_MS, ...Array.from({ length: 10_000 }, () => 30_000)] : SOON_MS,
        onShouldRetry: (error) => isPassing(error.originalResponse?.getStatus() ?? 0),
        onError: (error) => reject(refusalOf(error, this.server)),
        onSuccess: ({ lastResponse }) => resolve(JSON.parse(lastResponse.getBody()) as Received),
      });
      upload.start();
    });
  }

  /** How far a file is; who is patient asks again while the server does not answer. */
  private async progressOf(id: string): Promise<Progress> {
    try {
      return (await this.ask(`/api/uploads/${id}`)) as Progress;
    } catch (error) {
      if (!this.patient || !(error instanceof Refusal && isPassing(error.status))) throw error;
      return { state: 'waiting', error: null, media: null };
    }
  }

  /** Waits until a file is made ready, or can't be: then `error` says why. */
  private async settled(id: string): Promise<Omit<Progress, 'state'>> {
    for (;;) {
      const { state, error, media } = await this.progressOf(id);
      if (state === 'ready') return { error: null, media };
      if (state === 'failed') return { error: error ?? 'It could not be processed.', media: null };
      await new Promise((wake) => setTimeout(wake, ASKED_EVERY_MS));
    }
  }
}

function refusalOf(error: Error | DetailedError, server: string): Refusal {
  const response = error instanceof DetailedError ? error.originalResponse : null;
  if (!response)
    return new Refusal(503, `${server} isn’t answering. Check that it is running and that the address is right.`);
  try {
    const { title } = JSON.parse(response.getBody()) as { title?: unknown };
    if (typeof title === 'string') return new Refusal(response.getStatus(), title);
  } catch {
    // An answer of something in between: told below.
  }
  return new Refusal(response.getStatus(), `${server} answers, but it isn’t Lanternpost. Check the address.`);
}
