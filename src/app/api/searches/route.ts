import { answerAs, json } from '@/web/routes';
import { savedSearches } from '@/services/library';

export const dynamic = 'force-dynamic';

/** The searches of the library that the network keeps. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await savedSearches(actor)));
}
