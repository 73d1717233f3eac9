import { Readable } from 'node:stream';

/**
 * Reads a Range header (RFC 9110 section 14.1.2) for a file of `bytes`. One range only: null means "send all", as for a
 * header that is absent, malformed or of several ranges; `outside` means 416. Both ends of the result are inclusive.
 */
export function parseRange(
  header: string | undefined,
  bytes: number,
): { start: number; end: number } | 'outside' | null {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  if (!match || (match[1] === '' && match[2] === '')) return null;
  if (match[1] === '') {
    const length = Math.min(Number(match[2]), bytes);
    return length === 0 ? 'outside' : { start: bytes - length, end: bytes - 1 };
  }
  const start = Number(match[1]);
  const end = match[2] === '' ? bytes - 1 : Math.min(Number(match[2]), bytes - 1);
  if (match[2] !== '' && Number(match[2]) < start) return null;
  return start >= bytes ? 'outside' : { start, end };
}

/** A stored file: its name is its hash, so that it may be cached for ever. */
export interface StoredFile {
  readonly sha256: string;
  readonly type: string;
  readonly bytes: number;
  /** Whether the store's copy is known to be damaged or lost: it is not sent. */
  readonly damaged?: boolean;
}

/** Opens a file, or the part of it between two bytes (both inclusive); null where the store's copy is damaged or lost. */
export type OpenFile = (
  file: StoredFile,
  range?: { readonly start: number; readonly end: number },
) => Promise<Readable | null>;

const DAMAGED = 'The stored copy of this file is damaged or lost. Upload the file again to repair it.';

/**
 * The answer to a request for a file: whole, a range, or that it is known already (RFC 9110 sections 13 and 14); 503 with a sentence where
 * the store's copy is damaged or lost.
 */
export async function fileResponse(
  request: Request,
  file: StoredFile,
  open: OpenFile,
  more: Readonly<Record<string, string>> = {},
): Promise<Response> {
  const { sha256, type, bytes } = file;
  const etag = `"${sha256}"`;
  const headers = {
    ...more,
    etag,
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=31536000, immutable',
  };
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
  const condition = request.headers.get('if-range');
  const wanted = request.headers.get('range') ?? undefined;
  const range = condition === null || condition === etag ? parseRange(wanted, bytes) : null;
  if (range === 'outside')
    return problemResponse(416, 'This range lies outside the file.', { 'content-range': `bytes */${bytes}` });
  const isHead = request.method === 'HEAD';
  const body = isHead ? null : await open(file, range ?? undefined);
  if (body === null && (!isHead || file.damaged)) return problemResponse(503, DAMAGED);
  return new Response(body && (Readable.toWeb(body) as ReadableStream<Uint8Array>), {
    status: range ? 206 : 200,
    headers: {
      ...headers,
      'content-length': String(range ? range.end - range.start + 1 : bytes),
      ...(range ? { 'content-range': `bytes ${range.start}-${range.end}/${bytes}` } : {}),
    },
  });
}

/** A problem document (RFC 9457) as an answer. */
export function problemResponse(status: number, title: string, headers: Record<string, string> = {}): Response {
  return new Response(JSON.stringify({ type: 'about:blank', title, status }), {
    status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store', ...headers },
  });
}
