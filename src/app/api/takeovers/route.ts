import { takeovers } from '@/services/editions';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Takeovers that are prepared, and what was fired last: which screens showed it, from when to when. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await takeovers(actor)), 'takeovers');
}
