import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { logOnce, logger } from '@/log';
import { currentActor, requestAddress } from '@/web/session';
import type * as z from 'zod';
import { readBoundedJson } from '@/core/bounded-json';
import { problemsOf } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import type { Right } from '@/core/roles';
import { problemDocument } from '@/services/errors';
import { troubleOf } from '@/services/trouble';
import { actorOfKey, inNameOf, type Actor } from '@/services/people';

/**
 * A route handler's work for a signed-in person: errors become RFC 9457 problem details. With a right, a program may come too: with a
 * personal key that has it, as `Authorization: Bearer` (RFC 6750, 2.1).
 */
export async function answerAs(
  request: Request,
  work: (actor: Actor) => Promise<Response>,
  right?: Right,
): Promise<Response> {
  return answer(request, async () => {
    const key = /^Bearer\s+(\S+)$/i.exec(request.headers.get('authorization') ?? '')?.[1];
    if (key !== undefined && right === undefined)
      throw new Refusal(403, 'Keys can’t open this. It is for people who are logged in.');
    const actor =
      key !== undefined && right !== undefined
        ? await actorOfKey(key, right, { address: await requestAddress() })
        : await currentActor();
    if (!actor) throw new Refusal(401, 'You are logged out. Log in again.');
    return inNameOf(actor, () => work(actor));
  });
}

/** Whether the request comes from a program with a key. */
export const isOfProgram = (request: Request): boolean => request.headers.has('authorization');

/** The same without a person. Requests that change something must come from our own pages. */
export async function answer(request: Request, work: () => Promise<Response>): Promise<Response> {
  try {
    if (request.method !== 'GET' && request.method !== 'HEAD') refuseForeign(request);
    return await work();
  } catch (error) {
    const told =
      error instanceof Refusal
        ? error
        : (troubleOf(error) ??
          new Refusal(500, 'Something went wrong on the server. Nothing was changed. Try again in a moment.'));
    if (told !== error) logOnce(error, 'request failed');
    else
      logger.info(
        { status: told.status, path: withoutSecrets(new URL(request.url).pathname), reason: told.message },
        'request refused',
      );
    return Response.json(problemDocument(told), {
      status: told.status,
      headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
    });
  }
}

/** A path as a log may have it: anything as long as a token becomes an ellipsis. */
const withoutSecrets = (path: string) => path.replace(/[\w-]{40,}/g, '…');

/** Against requests that another site makes in a person's name: browsers say where a request comes from. Programs send neither header. */
function refuseForeign(request: Request): void {
  const site = request.headers.get('sec-fetch-site');
  const origin = request.headers.get('origin');
  const host = request.headers.get('x-forwarded-host') ?? request.headers.get('host');
  const foreign =
    (site !== null && site !== 'same-origin' && site !== 'none') ||
    // An origin that can't be read, "null" among them, is none of ours.
    (origin !== null && URL.parse(origin)?.host !== host);
  if (foreign) throw new Refusal(403, 'This request came from another website. Use the pages of this one.');
}

const MOST_JSON_BYTES = 2 ** 20;

/** Reads a body of at most so many bytes. Throws 413 for a larger one, as soon as it shows. */
export async function readBody(request: Request, most: number): Promise<Buffer> {
  const tooLarge = new Refusal(413, `This body is larger than ${most / 2 ** 20} MB. Send less at a time.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge;
  const parts: Uint8Array[] = [];
  let bytes = 0;
  if (request.body)
    for await (const part of Readable.fromWeb(request.body as ReadableStream) as AsyncIterable<Uint8Array>) {
      bytes += part.byteLength;
      if (bytes > most) throw tooLarge;
      parts.push(part);
    }
  return Buffer.concat(parts);
}

/** Reads a JSON body of at most 1 MB. Throws 413 for a larger one, and 400 for what is no JSON. */
export async function readJson(request: Request): Promise<unknown> {
  const read = readBoundedJson((await readBody(request, MOST_JSON_BYTES)).toString('utf8'));
  if (!read.ok) throw new Refusal(400, read.message);
  return read.value;
}

/** An answer in JSON that is never kept. */
export const json = (value: unknown): Response =>
  Response.json(value ?? null, { headers: { 'cache-control': 'no-store' } });

/** A text that the browser saves as a file. Names are ids and dates: they need no quoting. */
export const textFile = ({
  name,
  type,
  text,
}: {
  readonly name: string;
  readonly type: string;
  readonly text: string;
}) =>
  new Response(text, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });

/** A request's query by a schema. Throws a 400 that names what is wrong. */
export function readQuery<S extends z.ZodType>(request: Request, schema: S): z.output<S> {
  const read = schema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (read.success) return read.data;
  const problems = problemsOf(read.error);
  throw new Refusal(
    400,
    `The query isn’t understood: ${problems[0]?.path ?? ''} ${problems[0]?.message ?? ''}`,
    problems,
  );
}
