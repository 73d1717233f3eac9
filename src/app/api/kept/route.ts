import { answerAs, json } from '@/web/routes';
import { kept } from '@/services/editions';

export const dynamic = 'force-dynamic';

/** How long the network keeps what one can go back to. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await kept(actor)));
}
