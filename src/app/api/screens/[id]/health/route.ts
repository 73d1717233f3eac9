import { idSchema } from '@/core/plan';
import { screenHealth } from '@/services/health';
import { readInput } from '@/services/people';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** How a screen was over the last day: its states, what its player measured, and what its player reported last. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) =>
    json(await screenHealth(actor, readInput(idSchema, decodeURIComponent((await params).id)))),
  );
}
