import { idSchema } from '@/core/plan';
import { readInput } from '@/services/people';
import { think } from '@/services/thinking';
import { answerAs, isOfProgram, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The all-clear for a takeover that was fired; sent again it is answered the same. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ readonly id: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) =>
      json(await think('allClear', actor, readInput(idSchema, (await params).id), { byKey: isOfProgram(request) })),
    'takeovers',
  );
}
