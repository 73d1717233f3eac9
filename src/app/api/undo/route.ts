import { nextToTakeBack } from '@/services/plan';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** What the person's next undo and redo are about. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await nextToTakeBack(actor)));
}
