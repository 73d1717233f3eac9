import { answerAs, json } from '@/web/routes';
import { fileTrouble } from '@/services/library';

export const dynamic = 'force-dynamic';

/** Which stored files are damaged or lost, and whether the media folder is the right one. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await fileTrouble(actor)));
}
