import { answerAs, json } from '@/web/routes';
import { libraryRoom } from '@/services/library';

export const dynamic = 'force-dynamic';

/** How much the network's library holds, and may hold. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await libraryRoom(actor)));
}
