import { planFile } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { draftPlan } from '@/services/plan';
import { think } from '@/services/thinking';
import { answerAs, json, readBody } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Larger than the plan of twenty thousand screens. */
const MOST_BYTES = 32 * 2 ** 20;

/** The draft as a plan file. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(planFile((await draftPlan(actor)).plan)), 'publish');
}

/** What a plan file would make of the draft: nothing is changed. */
export async function POST(request: Request): Promise<Response> {
  // Read in the second process: a strange file must not slow other requests down.
  return answerAs(
    request,
    async (actor) => json(await think('lookAtPlanFile', actor, await readBody(request, MOST_BYTES))),
    'publish',
  );
}

/** Makes the draft equal to a plan file: what differs is added, changed and removed, all of it or nothing. `seen` is the change that it was looked at with. */
export async function PUT(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const seen = new URL(request.url).searchParams.get('seen');
      if (seen !== null && !/^\d{1,15}$/.test(seen))
        throw new Refusal(422, '“seen” is the number of a change, as looking at the file answered it.');
      const body = await readBody(request, MOST_BYTES);
      const { change, changes } = await think('importPlanFile', actor, body, seen === null ? undefined : Number(seen));
      return json({ change, changes: changes.length });
    },
    'publish',
  );
}
