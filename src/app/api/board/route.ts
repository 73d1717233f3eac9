import { Refusal } from '@/core/refusal';
import { openBoard, pressByLink } from '@/services/cues';
import { readInput } from '@/services/people';
import { idempotencySchema } from '@/web/inputs';
import { answer, json, readJson } from '@/web/routes';
import { requestAddress } from '@/web/session';

export const dynamic = 'force-dynamic';

/** The secret of a link to a board, as the page sends it: it is in no address that a log has. */
function secretOf(request: Request): string {
  const token = /^Bearer\s+(\S+)$/i.exec(request.headers.get('authorization') ?? '')?.[1];
  if (token === undefined) throw new Refusal(401, 'Open this page by the whole link, or by its QR code.');
  return token;
}

/** The board that a link opens, with what its buttons would do now. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async () => json(await openBoard(secretOf(request), await requestAddress())));
}

/** Presses a button of that board. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async () => {
    const idempotencyKey = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
    const address = await requestAddress();
    return json(await pressByLink(secretOf(request), address, await readJson(request), { idempotencyKey }));
  });
}
