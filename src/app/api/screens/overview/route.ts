import * as z from 'zod';
import { overviewNews } from '@/services/health';
import { answerAs, json, readQuery } from '@/web/routes';

export const dynamic = 'force-dynamic';

const querySchema = z.object({ known: z.string().max(64).optional() });

/** What the players of all screens told, and how the screens were: all of it, or with `?known=VERSION` what differs from that. */
export async function GET(request: Request): Promise<Response> {
  return answerAs(request, async (actor) =>
    json(await overviewNews(actor, readQuery(request, querySchema).known ?? null)),
  );
}
