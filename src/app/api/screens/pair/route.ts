import * as z from 'zod';
import { answerAs, readJson } from '@/web/routes';
import { requestAddress } from '@/web/session';
import { Refusal } from '@/core/refusal';
import { readInput } from '@/services/people';
import { pairScreen } from '@/services/screens';

export const dynamic = 'force-dynamic';

const listSchema = z
  .array(z.object({ screen: z.string().max(80), code: z.string().max(40) }))
  .min(1)
  .max(1000);

/** Pairs many screens at once from a list of codes. Each stands alone: the answer says of each whether it was paired. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const list = readInput(listSchema, await readJson(request));
    const address = await requestAddress();
    const results: { screen: string; error: string | null }[] = [];
    for (const { screen, code } of list) {
      const error = await pairScreen(actor, screen, code, address).then(
        () => null,
        (reason: unknown) => {
          if (reason instanceof Refusal) return reason.message;
          throw reason;
        },
      );
      results.push({ screen, error });
    }
    return Response.json(results);
  });
}
