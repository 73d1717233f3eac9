import { answerAs, json } from '@/web/routes';
import { playerPin } from '@/services/screens';

export const dynamic = 'force-dynamic';

/** The PIN that opens players' own pages on their screens, for people who look after screens. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json({ pin: await playerPin(actor) }));
}
