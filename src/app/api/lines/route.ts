import { screenLines } from '@/services/screens';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await screenLines(actor)));
}
