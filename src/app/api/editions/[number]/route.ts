import { editionPlan } from '@/services/editions';
import { readInput } from '@/services/people';
import { editionNumberSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The plan of one edition, as it was published. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly number: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await editionPlan(actor, readInput(editionNumberSchema, (await params).number))),
    'publish',
  );
}
