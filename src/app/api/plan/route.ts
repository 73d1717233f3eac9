import { Refusal, planFile } from '@/core';
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
      const { change, changes } = await think('importPlan', actor, jsonIn(await readBody(request, MOST_BYTES)));
      return json({ change, changes: changes.length });
    },
    'publish',
  );
}

function jsonIn(body: Buffer): unknown {
  try {
    return JSON.parse(body.toString('utf8')) as unknown;
  } catch {
    throw new Refusal(400, 'The body is no JSON: send a plan file.');
  }
}
