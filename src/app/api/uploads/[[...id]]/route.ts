import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import * as z from 'zod';
import { answerAs, json } from '@/web/routes';
import { answerTus } from '@/web/tus';
import { Refusal } from '@/core/refusal';
import { oneUpload, receiveUpload, uploads } from '@/services/library';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';

export const dynamic = 'force-dynamic';

/** Uploads under way and failed ones; with an id, that one's progress. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id?: readonly string[] }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const [id] = (await params).id ?? [];
      return json(id === undefined ? await uploads(actor) : await oneUpload(actor, readInput(rowSchema, id)));
    },
    'library',
  );
}

/** Begins a file that comes in parts, or receives a whole one: its name in the query, its bytes as the body. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      if (request.headers.has('tus-resumable')) return answerTus(request, actor);
      const name = new URL(request.url).searchParams.get('name');
      if (name === null) throw new Refusal(400, 'The file has no name. Send it as ?name=.');
      if (!request.body) throw new Refusal(422, 'This file is empty. Choose another.');
      const length = request.headers.get('content-length');
      if (length === null)
        throw new Refusal(411, 'This request doesn’t say how long the file is. Send Content-Length.');
      const bytes = readInput(z.coerce.number().int().min(0), length);
      const received = await receiveUpload(actor, { name, bytes }, Readable.fromWeb(request.body as ReadableStream));
      return Response.json(received, { status: 'known' in received ? 200 : 202 });
    },
    'library',
  );
}

const tus = (request: Request): Promise<Response> => answerAs(request, (actor) => answerTus(request, actor), 'library');

export { tus as HEAD, tus as PATCH, tus as DELETE };
