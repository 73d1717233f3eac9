import { answerAs, json } from '@/web/routes';
import { rowSchema } from '@/web/inputs';
import { batchSaid } from '@/services/library';
import { readInput } from '@/services/people';

export const dynamic = 'force-dynamic';

/** What is said of files that are sent together. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => json(await batchSaid(actor, readInput(rowSchema, (await params).id))));
}
