import { tray } from '@/services/screens';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** The players that wait for a screen, and the keys by which they come. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await tray(actor)));
}
