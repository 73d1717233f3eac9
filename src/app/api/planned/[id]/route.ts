import { plannedPlan } from '@/services/editions';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The plan of an edition that waits for its time, as it was frozen. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly id: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await plannedPlan(actor, readInput(rowSchema, (await params).id))),
    'publish',
  );
}
