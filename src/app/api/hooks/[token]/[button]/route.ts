import { pressByLink } from '@/services/cues';
import { readInput } from '@/services/people';
import { idempotencySchema } from '@/web/inputs';
import { answer, json } from '@/web/routes';
import { requestAddress } from '@/web/session';

export const dynamic = 'force-dynamic';

/**
 * For programs that can call an address and nothing else: presses a button of the board whose link it is. With `?end` it ends it. What the
 * request carries besides is not read.
 */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ readonly token: string; readonly button: string }> },
): Promise<Response> {
  return answer(request, async () => {
    const { token, button } = await params;
    const end = new URL(request.url).searchParams.has('end');
    const idempotencyKey = readInput(idempotencySchema, request.headers.get('idempotency-key') ?? undefined);
    return json(await pressByLink(token, await requestAddress(), { button, end }, { idempotencyKey }));
  });
}
