import { idSchema } from '@/core/plan';
import { readInput } from '@/services/people';
import { think } from '@/services/thinking';
import { idempotencySchema } from '@/web/inputs';
import { answerAs, isOfProgram, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Fires a prepared takeover. With an `Idempotency-Key` it is fired once, however often the request is sent. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ readonly id: string }> },
): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const id = readInput(idSchema, (await params).id);
      const key = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
      return json(await think('fireTakeover', actor, id, { byKey: isOfProgram(request), idempotencyKey: key }));
    },
    'takeovers',
  );
}
