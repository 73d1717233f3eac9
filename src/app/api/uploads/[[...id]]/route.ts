import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { z } from 'zod';
import { answerAs, json } from '@/web/routes';
import { answerTus } from '@/web/tus';
import { Refusal } from '@/core';
import { oneUpload, receiveUpload, uploads } from '@/services/library';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';

export const dynamic = 'force-dynamic';

/** What is under way or failed; with an id, how far that one is. */
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

/** Begins a file that comes in parts; or takes one in one go: its name in the query, its bytes as the body. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      if (request.headers.has('tus-resumable')) return answerTus(request, actor);
      const name = new URL(request.url).searchParams.get('name');
      if (name === null) throw new Refusal(400, 'The file has no name: send it as ?name=.');
      if (!request.body) throw new Refusal(422, 'This file is empty: choose another.');
      const length = request.headers.get('content-length');
      if (length === null)
        throw new Refusal(411, 'This request does not say how long the file is: send Content-Length.');
      const bytes = readInput(z.coerce.number().int().min(0), length);
      const received = await receiveUpload(actor, { name, bytes }, Readable.fromWeb(request.body as ReadableStream));
      return Response.json(received, { status: 'known' in received ? 200 : 202 });
    },
    'library',
  );
}

const tus = (request: Request): Promise<Response> => answerAs(request, (actor) => answerTus(request, actor), 'library');

export { tus as HEAD, tus as PATCH, tus as DELETE };
