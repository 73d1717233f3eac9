import { idSchema } from '@/core/plan';
import { board } from '@/services/cues';
import { readInput } from '@/services/people';
import { answerAs, json } from '@/web/routes';

export const dynamic = 'force-dynamic';

/** A board with what its buttons would do now. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ readonly id: string }> },
): Promise<Response> {
  return answerAs(request, async (actor) => json(await board(actor, readInput(idSchema, (await params).id))));
}
