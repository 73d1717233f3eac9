import { answerAs, json } from '@/web/routes';
import { editions } from '@/services/editions';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await editions(actor)));
}
