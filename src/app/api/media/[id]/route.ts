import { answerAs, json } from '@/web/routes';
import { mediaExtras } from '@/services/library';

export const dynamic = 'force-dynamic';

/** What the plan does not say of a media file. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => json(await mediaExtras(actor, (await params).id)));
}
