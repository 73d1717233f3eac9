import { openBoard, pressByLink } from '@/services/cues';
import { readInput } from '@/services/people';
import { idempotencySchema } from '@/web/inputs';
import { answer, json, readJson } from '@/web/routes';
import { linkSecret, requestAddress } from '@/web/session';

export const dynamic = 'force-dynamic';

/** The board that a link opens, with what its buttons would do now. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async () => json(await openBoard(linkSecret(request), await requestAddress())));
}

/** Presses a button of that board. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async () => {
    const idempotencyKey = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
    const address = await requestAddress();
    return json(await pressByLink(linkSecret(request), address, await readJson(request), { idempotencyKey }));
  });
}
