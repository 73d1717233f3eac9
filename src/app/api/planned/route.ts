import { readInput } from '@/services/people';
import { think } from '@/services/thinking';
import { changeSchema, goesOutSchema, publishingSchema } from '@/web/inputs';
import { answerAs, json, readJson } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** What is planned, the earliest first, and how far players have it. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await think('plannedEditions', actor)), 'publish');
}

const bodySchema = publishingSchema.extend({ basedOn: changeSchema, at: goesOutSchema });

/**
 * Plans what waits, or a choice of it, for an instant in milliseconds since 1970, or for a time on each site's clock: `basedOn` as in
 * publishing.
 */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const { basedOn, at, ...how } = readInput(bodySchema, await readJson(request));
      return json(await think('planEdition', actor, basedOn, at, how));
    },
    'publish',
  );
}
