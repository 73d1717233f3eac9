import { planFile } from '@/core';
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

/** Makes the draft equal to a plan file: what differs is added, changed and removed, all of it or nothing. */
export async function PUT(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      // Read beside: what is in a file of strangers costs nobody else's requests.
      const { change, changes } = await think('importPlanFile', actor, await readBody(request, MOST_BYTES));
      return json({ change, changes: changes.length });
    },
    'publish',
  );
}
