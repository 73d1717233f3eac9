import { answerAs, json } from '@/web/routes';
import { feeds } from '@/services/calendars';

export const dynamic = 'force-dynamic';

/** The calendar feeds that the person's network has opened, without their secrets. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) => json(await feeds(actor)));
}
