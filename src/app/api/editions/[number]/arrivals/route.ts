import { arrivals } from '@/services/editions';
import { readInput } from '@/services/people';
import { editionNumberSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The screens that an edition changed, and when each was first heard to play it. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly number: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await arrivals(actor, readInput(editionNumberSchema, (await params).number))),
    'publish',
  );
}
