import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { answerAs } from '@/web/routes';
import { Refusal } from '@/core';
import { receiveUpload, uploads } from '@/services/library';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => Response.json(await uploads(actor)));
}

/** Takes one file: its name in the query, its bytes as the body. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const name = new URL(request.url).searchParams.get('name');
    if (name === null) throw new Refusal(400, 'The file has no name: send it as ?name=.');
    if (!request.body) throw new Refusal(422, 'This file is empty: choose another.');
    const received = await receiveUpload(actor, name, Readable.fromWeb(request.body as ReadableStream));
    return Response.json(received, { status: 'known' in received ? 200 : 202 });
  });
}
