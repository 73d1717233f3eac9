import { pairsSchema } from '@/web/inputs';
import { answerAs, json, readJson } from '@/web/routes';
import { requestAddress } from '@/web/session';
import { readInput } from '@/services/people';
import { pairScreens } from '@/services/screens';

export const dynamic = 'force-dynamic';

/** Pairs many screens at once from a list of codes. Each stands alone: the answer says of each whether it was paired. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const list = readInput(pairsSchema, await readJson(request));
    const address = await requestAddress();
    return json(await pairScreens(actor, list, address));
  });
}
