import { z } from 'zod';
import { editionPlan } from '@/services/editions';
import { readInput } from '@/services/people';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

const numberSchema = z.coerce
  .number('An edition is a number.')
  .int('An edition is a whole number.')
  .min(1, 'Editions begin with 1.')
  .max(2 ** 31 - 1, 'There is no such edition.');

/** The plan of one edition, as it was published. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly number: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await editionPlan(actor, readInput(numberSchema, (await params).number))),
    'publish',
  );
}
