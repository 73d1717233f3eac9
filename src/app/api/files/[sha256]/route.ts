import { Readable } from 'node:stream';
import { answerAs } from '@/interface/data/routes';
import { parseRange } from '@/protocol/range';
import { Refusal } from '@/core';
import { libraryFile, readFile } from '@/services/library';

export const dynamic = 'force-dynamic';

/** A file of the library, for the interface to show: whole or one range, cached for ever since its name is its hash. */
export async function GET(request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { sha256 } = await params;
    const { type, bytes } = await libraryFile(actor, sha256);
    const etag = `"${sha256}"`;
    const headers: Record<string, string> = {
      etag,
      'content-type': type,
      'accept-ranges': 'bytes',
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'; sandbox",
    };
    if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
    const range = parseRange(request.headers.get('range') ?? undefined, bytes);
    if (range === 'outside') throw new Refusal(416, 'This range lies outside the file.');
    const body = Readable.toWeb(readFile(sha256, range ?? undefined)) as unknown as BodyInit;
    headers['content-length'] = String(range ? range.end - range.start + 1 : bytes);
    if (range) headers['content-range'] = `bytes ${range.start}-${range.end}/${bytes}`;
    return new Response(body, { status: range ? 206 : 200, headers });
  });
}
