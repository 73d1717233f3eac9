import { answerAs, json } from '@/web/routes';
import { libraryTags } from '@/services/library';

export const dynamic = 'force-dynamic';

/** The tags of the library's files, and how many bear each. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await libraryTags(actor)));
}
