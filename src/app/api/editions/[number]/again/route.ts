import { planAgain } from '@/services/editions';
import { readInput } from '@/services/people';
import { editionNumberSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The plan that screens would show if an edition were published again now: with what is in force or put on laid over it. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly number: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await planAgain(actor, readInput(editionNumberSchema, (await params).number))),
    'publish',
  );
}
