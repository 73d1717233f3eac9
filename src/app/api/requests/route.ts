import { requests } from '@/services/editions';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** Requests to publish that wait, and what was answered lately. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await requests(actor)));
}
