import { DetailedError, Upload } from 'tus-js-client';
import type { Courier, Listener, Parcel } from './sender';

/** A file's way by tus 1.0: what the server has of it is not sent again, after a broken line, a reload or a restart of either. */

const SOON_MS = [0, 1000, 2000, 5000, 10_000];
/** As long as a line may be away for a night. */
const DELAYS_MS = [...SOON_MS, ...Array.from({ length: 12 * 120 }, () => 30_000)];

/** Up to this size a file is sent with its first request. */
const SMALL_BYTES = 1_000_000;

/** Answers that another try may change: the server is busy, restarts, or still holds the file for a request that broke off. */
const isPassing = (status: number) => [0, 408, 409, 423, 429, 500, 502, 503, 504].includes(status);

const statusOf = (error: Error) => (error instanceof DetailedError ? (error.originalResponse?.getStatus() ?? 0) : 0);

/** What the server says of a refusal; an answer that is not ours says nothing that can be shown. */
function said(error: Error): string {
  const body = error instanceof DetailedError ? error.originalResponse?.getBody() : undefined;
  const title = (read(body) as { title?: unknown } | null)?.title;
  if (typeof title === 'string') return title;
  const status = statusOf(error);
  return status === 0
    ? 'The connection broke during the upload. Check the network, then try again.'
    : `The server answered ${status}. Try again in a moment.`;
}

function read(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}

/** `person` keeps what several people send from one browser apart. */
export const courierOf =
  (person: string) =>
  ({ file, batch, replaces }: Parcel, listener: Listener): Courier => {
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      metadata: { filename: file.name, batch, ...(replaces === undefined ? {} : { replaces }) },
      // One request in place of two; what breaks off then is sent again from its beginning.
      uploadDataDuringCreation: file.size <= SMALL_BYTES,
      retryDelays: DELAYS_MS,
      removeFingerprintOnSuccess: true,
      fingerprint: () =>
        Promise.resolve(
          [
            ...['lanternpost', person, file.webkitRelativePath || file.name, file.size, file.lastModified],
            ...(replaces === undefined ? [] : ['replaces', replaces]),
          ].join(' '),
        ),
      onProgress: (sent) => listener.progress(sent),
      onShouldRetry: (error) => {
        const passing = isPassing(statusOf(error));
        if (passing) listener.stalled();
        return passing;
      },
      onError: (error) => listener.refused(said(error)),
      onSuccess: ({ lastResponse }) => {
        const { known } = (read(lastResponse.getBody()) ?? {}) as { known?: unknown };
        listener.done(typeof known === 'string' ? known : null);
      },
    });
    let stopped = false;
    return {
      start: () => {
        stopped = false;
        void upload
          .findPreviousUploads()
          .catch(() => [])
          .then(([earlier]) => {
            if (stopped) return;
            if (earlier && !upload.url) upload.resumeFromPreviousUpload(earlier);
            upload.start();
          });
      },
      stop: () => {
        stopped = true;
        void upload.abort().catch(() => {});
      },
      cancel: () => {
        stopped = true;
        // What can't be taken away now goes by itself after some days.
        void upload.abort(true).catch(() => {});
      },
    };
  };
