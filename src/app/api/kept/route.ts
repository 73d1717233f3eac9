import { answerAs, json } from '@/web/routes';
import { kept } from '@/services/editions';

export const dynamic = 'force-dynamic';

/** How long the network keeps old editions and replaced files. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await kept(actor)));
}
