import { editions } from '@/services/editions';
import { readInput } from '@/services/people';
import { think } from '@/services/thinking';
import { changeSchema, publishingSchema } from '@/web/inputs';
import { answerAs, json, readJson } from '@/web/routes';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await editions(actor)), 'publish');
}

const bodySchema = publishingSchema.extend({ basedOn: changeSchema });

/** Publishes what waits, or a choice of it: `basedOn` is the last change that was looked at in the docket. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const { basedOn, ...how } = readInput(bodySchema, await readJson(request));
      return json(await think('publishEdition', actor, basedOn, how));
    },
    'publish',
  );
}
