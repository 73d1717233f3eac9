import { batchPreparing } from '@/services/library';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** How many files that were sent together are here, and not in the library yet. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) =>
    json({ preparing: await batchPreparing(actor, readInput(rowSchema, (await params).id)) }),
  );
}
