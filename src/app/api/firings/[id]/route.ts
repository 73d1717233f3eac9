import { firingScreens } from '@/services/editions';
import { readInput } from '@/services/people';
import { rowSchema } from '@/web/inputs';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The screens that a takeover was fired on, and which of them showed it, from when to when. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly id: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => json(await firingScreens(actor, readInput(rowSchema, (await params).id))),
    'takeovers',
  );
}
