import * as z from 'zod';
import { readInput } from '@/services/people';
import { think } from '@/services/thinking';
import { chosenSchema } from '@/web/inputs';
import { answerAs, json, readJson } from '@/web/routes';

export const dynamic = 'force-dynamic';

const bodySchema = z.object({ chosen: chosenSchema });

/** What a choice of the changes would be as an edition. It changes nothing: a choice is too long for an address. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { chosen } = readInput(bodySchema, await readJson(request));
    return json(await think('docketChoice', actor, chosen));
  });
}
