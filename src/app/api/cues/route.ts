import { DAY } from '@/core/instant';
import { boardsAccess, cuesOn, fireCue, firingsWithin, floods, lastFired } from '@/services/cues';
import { readInput } from '@/services/people';
import { idempotencySchema } from '@/web/inputs';
import { answerAs, isOfProgram, json, readJson } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Pages look back so far at what was fired. */
const SEEN_MS = 2 * DAY;

/** The cues that are on, what was fired last, what fired too often, and who may open which board. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const now = Date.now();
      const [on, fired, tooOften, access, firings] = await Promise.all([
        ...([cuesOn(actor), lastFired(actor), floods(actor), boardsAccess(actor)] as const),
        firingsWithin(actor.networkId, now - SEEN_MS, now + DAY),
      ]);
      // A program needs to know nothing of people and links.
      return json(isOfProgram(request) ? { on, fired, tooOften } : { on, fired, tooOften, ...access, firings });
    },
    'cues',
  );
}

/** Fires a cue, or with `end` ends it. With an `Idempotency-Key` that is done once, however often the request is sent. */
export async function POST(request: Request): Promise<Response> {
  return answerAs(
    request,
    async (actor) => {
      const idempotencyKey = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
      return json(await fireCue(actor, await readJson(request), { byKey: isOfProgram(request), idempotencyKey }));
    },
    'cues',
  );
}
