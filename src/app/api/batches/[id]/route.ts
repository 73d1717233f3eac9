import { answerAs, json, readJson } from '@/web/routes';
import { rowSchema } from '@/web/inputs';
import { batchSaid, describeBatch, type BatchInput } from '@/services/library';
import { readInput } from '@/services/people';

export const dynamic = 'force-dynamic';

/** What is said of files that are sent together. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async ({ networkId }) =>
    json(await batchSaid(networkId, readInput(rowSchema, (await params).id))),
  );
}

/** Says something of all files that are sent together, in place of what was said before. */
export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const batch = readInput(rowSchema, (await params).id);
      await describeBatch(actor, batch, (await readJson(request)) as BatchInput);
      return json(await batchSaid(actor.networkId, batch));
    },
    'library',
  );
}
