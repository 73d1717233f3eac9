import { screensOverview } from '@/services/health';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** What the players of all screens told, and how the screens were. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await screensOverview(actor)));
}
